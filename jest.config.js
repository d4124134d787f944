/** Unit and property tests: pure TypeScript, transformed by SWC, run as ES modules. */
export default {
  testEnvironment: "node",
  roots: [
    "<rootDir>/core",
    "<rootDir>/app",
    "<rootDir>/db",
    "<rootDir>/command",
    "<rootDir>/server",
    "<rootDir>/tests/independent",
    "<rootDir>/tests/documents",
  ],
  testMatch: ["**/*.test.ts", "**/*.test.tsx"],
  // For what hangs: on a busy machine a test may take long.
  testTimeout: 120_000,
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  transform: {
    "^.+\\.tsx?$": [
      "<rootDir>/tests/transform.js",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          transform: { react: { runtime: "automatic" } },
          target: "es2022",
        },
        module: { type: "es6" },
      },
    ],
  },
};
