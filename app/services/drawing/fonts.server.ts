import { existsSync } from "node:fs";
import { join } from "node:path";
import { FONT_FILES } from "./fontNames";

/** Where the unpacked fonts lie; the build makes them. */
const folder = () => process.env["BAROMETRON_FONTS"] ?? join(process.cwd(), "build", "fonts");

/** What is said where the letters are missing. */
export const NO_LETTERS =
  "The letters that pictures and paper are drawn with are missing: stop Barometron and start it again, which makes them.";

/** A picture cannot be drawn for want of letters; its code crosses a thread's border. */
export class CannotDraw extends Error {
  readonly code = "cannot-draw";
}

/** Whether an error, of this thread or of another, is that letters are missing. */
export const isCannotDraw = (error: unknown): boolean =>
  (error as { code?: string } | null)?.code === "cannot-draw";

/** Paths of the font's files by name. Throws `CannotDraw` where one is missing: letters would be missing on the paper. */
export function fontPaths(): ReadonlyMap<string, string> {
  const paths = new Map(FONT_FILES.map((name) => [name, join(folder(), `${name}.ttf`)]));
  for (const path of paths.values()) if (!existsSync(path)) throw new CannotDraw(NO_LETTERS);
  return paths;
}
