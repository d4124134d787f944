import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/** The project's folder, and what lies in it. */
export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
export const MIGRATIONS = join(ROOT, "db", "migrations");
export const BUILD = join(ROOT, "build");
/** The desk's own data: database, its log and password. BAROMETRON_DATA moves it, for example to another disk. */
export const DATA = process.env["BAROMETRON_DATA"] ?? join(ROOT, ".data");
