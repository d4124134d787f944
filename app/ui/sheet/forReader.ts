import { withReadersDecimals } from "#core/base";

/** A kept drawing with its numbers as the reader writes them: kept ones have points. Only its texts are touched. */
export const forReader = (svg: string): string =>
  svg.replace(/>([^<]+)</g, (_, text: string) => `>${withReadersDecimals(text)}<`);
