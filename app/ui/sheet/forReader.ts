import { withReadersDecimals } from "#core/base";
import { isPlainDrawing } from "./plainDrawing";

/**
 * A kept drawing with its numbers as the reader writes them: kept ones have points. Only its texts are touched. What is more
 * than a drawing is not shown: it came from another desk.
 */
export const forReader = (svg: string): string =>
  (isPlainDrawing(svg) ? svg : "").replace(
    />([^<]+)</g,
    (_, text: string) => `>${withReadersDecimals(text)}<`,
  );
