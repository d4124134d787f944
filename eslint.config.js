import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** Who may import whom: data flows from core to db to app, and no station knows another. */
const STATIONS = ["today", "bikes", "plan", "ride", "strip", "compare", "settings"];
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
  {
    files: ["core/**/*.ts"],
    ignores: ["core/**/*.test.ts"],
    rules: forbid(
      "^(node:|react|@react|drizzle|postgres|express|#app|#ui|#db|(\\.\\./)+(app|db|server|command))",
      "core imports nothing of app, db, React or Node.",
    ),
  },
  {
    files: ["db/**/*.ts"],
    rules: forbid("^(react|@react|#app|#ui|(\\.\\./)+(app|server|command))", "db knows core only."),
  },
  ...STATIONS.map((station) => ({
    files: [`app/${station}/**/*.{ts,tsx}`],
    rules: forbid(
      `(^|/)(${STATIONS.filter((other) => other !== station).join("|")})/`,
      "No station imports another: share through ui/ or core/.",
    ),
  })),
  {
    files: ["app/**/*.tsx", "app/**/*.ts"],
    plugins: { "react-hooks": reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
);
