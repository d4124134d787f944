import unit from "../jest.config.js";

/** Storage and command tests: they need a database and start servers of their own, one after the other. */
export default {
  ...unit,
  rootDir: "..",
  roots: [
    "<rootDir>/tests/db",
    "<rootDir>/tests/command",
    "<rootDir>/tests/trials",
    "<rootDir>/tests/hostile",
  ],
  maxWorkers: 1,
  testTimeout: 600_000,
};
