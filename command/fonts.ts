import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import wawoff2 from "wawoff2";
import { FONT_FILES } from "#app/services/drawing/fontNames";

/** Unpacks the shipped font for what draws pictures and paper on the server: those read no compressed fonts. */
export async function writeFonts(folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true });
  const from = join(
    dirname(createRequire(import.meta.url).resolve("@fontsource/atkinson-hyperlegible-next/package.json")),
    "files",
  );
  for (const name of FONT_FILES) {
    const packed = readFileSync(join(from, `atkinson-hyperlegible-next-${name}.woff2`));
    writeFileSync(join(folder, `${name}.ttf`), await wawoff2.decompress(packed));
    // As they are, for pages that leave by themselves.
    writeFileSync(join(folder, `${name}.woff2`), packed);
  }
}
