import { createHash } from "node:crypto";

/** The build that answers: another one reckons everything anew. Each start for development is a build of its own. */
export const build = process.env["BAROMETRON_BUILD"] ?? "none";

/** A hash of everything something is reckoned from. */
export const hashOf = (from: unknown) =>
  createHash("sha256").update(JSON.stringify(from)).digest("base64url");
