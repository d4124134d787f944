import { create } from "qrcode";

/** The dark squares of an address's code: so many to a side, and where they are. */
export interface Code {
  readonly side: number;
  readonly dark: readonly (readonly [column: number, row: number])[];
}

/** An address as a code a phone reads. */
export function codeOf(address: string): Code {
  const { modules } = create(address, { errorCorrectionLevel: "M" });
  const dark = Array.from({ length: modules.size * modules.size }, (_, i) => i)
    .filter((i) => modules.data[i])
    .map((i) => [i % modules.size, Math.floor(i / modules.size)] as const);
  return { side: modules.size, dark };
}
