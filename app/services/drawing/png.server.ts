import { Resvg } from "@resvg/resvg-js";
import { FONT_FAMILY } from "./fontNames";
import { fontPaths } from "./fonts.server";

/** Widest picture, pixels: more is no card, and fills the memory. */
const WIDEST = 4000;

/**
 * An SVG of ours as PNG.
 *
 * @param width in pixels; the height follows. Throws `CannotDraw` where the letters are missing
 */
export function pngOf(svg: string, width: number): Uint8Array {
  return new Resvg(svg, {
    fitTo: { mode: "width", value: Math.min(WIDEST, Math.round(width)) },
    font: {
      fontFiles: [...fontPaths().values()],
      loadSystemFonts: false,
      defaultFontFamily: FONT_FAMILY,
    },
  })
    .render()
    .asPng();
}
