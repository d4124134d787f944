import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/** The project's folder, and what lies in it. */
export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
export const MIGRATIONS = join(ROOT, "db", "migrations");
export const BUILD = join(ROOT, "build");
export const DATA = join(ROOT, ".data");
