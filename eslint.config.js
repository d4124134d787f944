import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** Rooms of core from the ground up: each may import those before it. */
const ROOMS = [
  "base",
  "fields",
  "battery",
  "ride",
  "records",
  "route",
  "bike",
  "estimation",
  "desk",
  "analysis",
  "forecast",
  "planning",
  "live",
  "compare",
  "telling",
  "io",
  "narration",
  "world",
  "simulator",
  "calc",
];
/** Who may import whom: data flows from core to db to app, and no station knows another. */
const STATIONS = ["today", "bikes", "plan", "ride", "strip", "compare", "sheet", "settings", "team"];
const forbid = (patterns, message) => ({
  "@typescript-eslint/no-restricted-imports": ["error", { patterns: [{ regex: patterns, message }] }],
});

export default tseslint.config(
  { ignores: ["build/", "node_modules/", ".react-router/", ".data/", "db/migrations/", "test-results/"] },
  ...tseslint.configs.strict,
  {
    linterOptions: { reportUnusedDisableDirectives: "error" },
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-non-null-assertion": "off",
      "@typescript-eslint/consistent-type-imports": ["error", { disallowTypeAnnotations: false }],
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/no-invalid-void-type": "off",
      eqeqeq: "error",
    },
  },
  ...ROOMS.map((room, i) => ({
    files: [`core/${room}/**/*.ts`],
    ignores: ["core/**/*.test.ts"],
    rules: {
      "@typescript-eslint/no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              regex:
                "^(node:|react|@react|drizzle|postgres|express|#app|#ui|#db|(\\.\\./)+(app|db|server|command)/)",
              message: "core imports nothing of app, db, React or Node.",
            },
            {
              regex: `^#core/(${ROOMS.slice(i + 1).join("|") || "none"})(/|$)`,
              message: `${room} stands below that room: arrows of core go down only (docs/architecture.md).`,
            },
          ],
        },
      ],
    },
  })),
  {
    // What is tried in the world may share nothing with it but the shape of a record.
    files: ["core/world/**/*.ts"],
    ignores: ["core/**/*.test.ts"],
    rules: {
      "@typescript-eslint/no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              regex: "^(?!\\./)",
              allowTypeImports: true,
              message: "The world takes nothing of core but types.",
            },
          ],
        },
      ],
    },
  },
  {
    files: ["db/**/*.ts"],
    rules: forbid("^(react|@react|#app|#ui|(\\.\\./)+(app|server|command))", "db knows core only."),
  },
  ...STATIONS.map((station) => ({
    files: [`app/${station}/**/*.{ts,tsx}`],
    rules: forbid(
      `^(\\.{1,2}/|#app/)(.*/)?(${STATIONS.filter((other) => other !== station).join("|")})/`,
      "No station imports another: share through ui/ or core/.",
    ),
  })),
  {
    // Where components and hooks are: these rules compile whatever file they are given.
    files: ["app/**/*.tsx", "app/**/use*.ts", "app/ui/**/*.ts"],
    ignores: ["app/**/*.test.*"],
    plugins: { "react-hooks": reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
);
