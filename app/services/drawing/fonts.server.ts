import { existsSync } from "node:fs";
import { join } from "node:path";
import { FONT_FILES } from "./fontNames";

/** Where the unpacked fonts lie; the build makes them. */
const folder = () => process.env["BAROMETRON_FONTS"] ?? join(process.cwd(), "build", "fonts");

/** A picture cannot be drawn: what is missing, and what to do. */
export class CannotDraw extends Error {}

/** Paths of the font's files by name. Throws `CannotDraw` where one is missing: letters would be missing on the paper. */
export function fontPaths(): ReadonlyMap<string, string> {
  const paths = new Map(FONT_FILES.map((name) => [name, join(folder(), `${name}.ttf`)]));
  for (const path of paths.values())
    if (!existsSync(path))
      throw new CannotDraw(
        "The letters that pictures and paper are drawn with are missing: stop Barometron and start it again, which makes them.",
      );
  return paths;
}
