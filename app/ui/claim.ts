import { formatBare, formatQuantity, type System } from "#core/base";

/** A claimed range: "40 to 60 mi", or one figure. */
export function claimText(
  { lowM, highM }: { readonly lowM: number; readonly highM: number },
  system: System,
): string {
  const high = formatQuantity(highM, "distance", system, 0);
  return lowM === highM ? high : `${formatBare(lowM, "distance", system, 0)} to ${high}`;
}
