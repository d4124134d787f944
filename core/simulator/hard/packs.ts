import { nth } from "#core/base";
import { NOMINAL_CELL_VOLTS, OCV, type OcvTable } from "#core/battery";
import { LOSSES } from "../draw.ts";
import type { TruePack } from "../pack.ts";
import type { Rng } from "../random.ts";
import type { HardKind } from "./kinds.ts";

export interface HardPack {
  readonly pack: TruePack;
  /** What the record knows of its age. */
  readonly known: { readonly firstUsedOn?: string; readonly cycles?: number };
}

/** A curve of its own: the chemistry's with a bow of some hundredths of a volt. */
function bowedTable(chance: Rng, table: OcvTable, most: number): OcvTable {
  const [first, second] = [chance.between(-most, most), chance.between(-most, most) / 2];
  const volts = table.volts.map((volt, i) => {
    const q = nth(table.q, i);
    return volt + first * Math.sin(Math.PI * q) + second * Math.sin(2 * Math.PI * q);
  });
  // Never falling with the charge.
  for (let i = 1; i < volts.length; i += 1) volts[i] = Math.max(nth(volts, i), nth(volts, i - 1) + 0.001);
  return { q: table.q, volts };
}

/** A pack that need not yield what its label lets expect: new and known to be, of unknown age, or some years old. */
export function drawHardPack(chance: Rng, kind: HardKind, year: number): HardPack {
  const chemistry = kind.chemistry ?? "NMC";
  const seriesCells = chemistry === "LFP" ? 15 : nth([10, 13, 14], Math.floor(chance.next() * 3));
  const ampHours = Math.round(chance.between(8, 21) * 2) / 2;
  const labelWh = Math.round(ampHours * seriesCells * NOMINAL_CELL_VOLTS[chemistry]);
  const isNew = !kind.aged && chance.happens(0.4);
  const years = Math.floor(chance.between(2, 7));
  const share = kind.aged
    ? chance.between(0.66, 0.98) - 0.015 * years
    : isNew
      ? chance.between(0.88, 1.01)
      : chance.between(0.82, 1.03);
  const [least, most] = kind.tempC ?? [6, 30];
  return {
    pack: {
      chemistry,
      seriesCells,
      ampHours,
      labelWh,
      chemicalWh: labelWh * share * (1 + LOSSES),
      ohm: 0.012 * seriesCells * (3 / ampHours) * chance.between(0.8, kind.aged ? 2.8 : 1.9),
      tempC: Math.round(chance.between(least, most)),
      ocv: bowedTable(chance, OCV[chemistry], chemistry === "LFP" ? 0.012 : 0.03),
      coldShare: chance.between(0.4, 1.6),
    },
    known: kind.aged
      ? { firstUsedOn: `${year - years}-04-01`, cycles: Math.round(years * chance.between(25, 80)) }
      : isNew
        ? { firstUsedOn: `${year}-05-01`, cycles: 5 }
        : {},
  };
}
