import { parseQuantity } from "#core/base";
import type { Item } from "./read.ts";

/** What a fact may be of: `priceMinor` in minor units of the record's own currency, `claims` a range in metres. */
export const FACT_FIELDS = [
  "massKg",
  "pressurePa",
  "nominalV",
  "ampHours",
  "labelWh",
  "priceMinor",
  "claims",
] as const;
export type FactField = (typeof FACT_FIELDS)[number];

/** A fact that was said of what is ridden, as the record has it that it belongs to. SI units. */
export interface Fact {
  readonly record: "rider" | "bike" | "pack" | "setUp";
  readonly field: FactField;
  readonly value: number;
  /** The upper end of a claim said as a span. */
  readonly high: number | null;
  /** As it was said. */
  readonly words: string;
}

/** Where each kind of fact belongs, and the units it may be said in, those of a ride in miles and of one in kilometres without any. */
const BELONGS = {
  weight_rider: { record: "rider", field: "massKg", as: "mass", bare: { mi: "lb", km: "kg" } },
  weight_bike: { record: "bike", field: "massKg", as: "mass", bare: { mi: "lb", km: "kg" } },
  pressure: { record: "setUp", field: "pressurePa", as: "pressure", bare: { mi: "psi", km: "psi" } },
  pack_v: { record: "pack", field: "nominalV", as: "volts", bare: { mi: "V", km: "V" } },
  pack_ah: { record: "pack", field: "ampHours", as: null, bare: { mi: "", km: "" } },
  price: { record: "bike", field: "priceMinor", as: "money", bare: { mi: "", km: "" } },
  claim_range: { record: "bike", field: "claims", as: "distance", bare: { mi: "mi", km: "km" } },
  pack_wh: { record: "pack", field: "labelWh", as: "energy", bare: { mi: "Wh", km: "Wh" } },
} as const;

const isPlaced = (kind: string): kind is keyof typeof BELONGS => kind in BELONGS;

/** The middle of what was said: a span's, or the figure itself. */
const middle = (value: Item["value"]): number =>
  typeof value === "number" ? value : typeof value === "string" ? NaN : (value[0] + value[1]) / 2;

const MINOR = 100;

/**
 * Facts that a record has a field for; a charging time is left to a person. Of one that was said twice, the last counts.
 *
 * @param unit of the ride: what was said without a unit is in its own
 */
export function factsOf(setUp: readonly Item[], unit: "mi" | "km"): readonly Fact[] {
  const facts = new Map<string, Fact>();
  for (const { kind, value, unit: said, words } of setUp) {
    if (!isPlaced(kind)) continue;
    const { record, field, as, bare } = BELONGS[kind];
    const inSi = (figure: number): number => {
      if (as === null) return figure;
      if (as === "money") return Math.round(figure * MINOR);
      const read = parseQuantity(`${figure} ${said ?? bare[unit]}`, as, bare[unit]);
      return read.ok ? read.value : NaN;
    };
    const span = field === "claims" && typeof value === "object";
    const [low, high] = span ? [inSi(value[0]), inSi(value[1])] : [inSi(middle(value)), null];
    if (Number.isFinite(low)) facts.set(kind, { record, field, value: low, high, words });
  }
  return [...facts.values()];
}
