import type { Rng } from "./chance.ts";
import type { Kind } from "./kinds.ts";
import { at, between, kelvin } from "./units.ts";

/** A pack as it truly is. */
export interface Pack {
  readonly chemistry: "NMC" | "LFP";
  readonly seriesCells: number;
  /** As its label has them. */
  readonly ampHours: number;
  readonly labelWh: number;
  /** What it holds on a warm day, Ah. */
  readonly trueAh: number;
  /** Resistance at 25 C, ohm; what of it comes slowly, as a share, and how slowly, s. */
  readonly ohm: number;
  readonly slowShare: number;
  readonly slowS: number;
  /** Share of the charge that stays inside, for each degree below 20 C. */
  readonly coldShare: number;
  /** How steeply resistance rises as it gets colder, K. */
  readonly coldOhmK: number;
  readonly tempC: number;
  /** Volts of a cell at rest, by the charge left in it. */
  readonly restVolts: (charge: number) => number;
  /** Loaded volts of a cell at which it is switched off. */
  readonly cutVolts: number;
}

/** What the record knows of a pack's age. */
export interface KnownAge {
  readonly firstUsedOn?: string;
  readonly cycles?: number;
}

/** A pack in use: charge left as a share, slow voltage drop, and what was taken out so far. */
export interface Charge {
  readonly share: number;
  readonly slowV: number;
  readonly usedWh: number;
  readonly usedAh: number;
}

const CHARGES = [0, 0.03, 0.07, 0.13, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];
/** Rest volts of a cell as data sheets of common cells draw them, rounded; each pack has a bow of its own besides. */
const REST_VOLTS = {
  NMC: [3.02, 3.25, 3.39, 3.47, 3.53, 3.59, 3.63, 3.69, 3.78, 3.88, 3.98, 4.07, 4.18],
  LFP: [2.55, 2.9, 3.08, 3.18, 3.22, 3.25, 3.27, 3.285, 3.295, 3.315, 3.33, 3.335, 3.42],
} as const;
const NOMINAL_VOLTS = { NMC: 3.6, LFP: 3.2 } as const;
const CUT_VOLTS = { NMC: 3.0, LFP: 2.5 } as const;
/** Share of a pack's energy that its own resistance keeps, on a usual ride. */
const USUALLY_KEPT = 0.025;
const WARM_C = 20;
const BENCH_W = 60;
const REFERENCE_K = kelvin(25);

/** Between two ends, likelier in the middle. */
const peaked = (chance: Rng, low: number, high: number) =>
  (chance.between(low, high) + chance.between(low, high)) / 2;

/** What it truly yields of its label: from three quarters to a little more than all. */
function labelShare(chance: Rng, kind: Kind, years: number, cycles: number, isNew: boolean): number {
  const share = isNew ? peaked(chance, 0.82, 1.06) : peaked(chance, 0.75, 1.08);
  if (!kind.aged) return share;
  return (
    share * (1 - years * chance.between(0.005, 0.03)) * (1 - (cycles / 100) * chance.between(0.005, 0.035))
  );
}

/** Draws a pack: new and known to be, of unknown age, or some years old. */
export function drawPack(
  chance: Rng,
  kind: Kind,
  year: number,
): { readonly pack: Pack; readonly known: KnownAge } {
  const chemistry = kind.chemistry ?? "NMC";
  const seriesCells = chemistry === "LFP" ? 15 : at([10, 13, 14], Math.floor(chance.next() * 3));
  const ampHours = Math.round(chance.between(8, 21) * 2) / 2;
  const labelWh = Math.round(ampHours * seriesCells * NOMINAL_VOLTS[chemistry]);
  const isNew = !kind.aged && chance.happens(0.4);
  const years = Math.floor(chance.between(2, 7));
  const cycles = Math.round(years * chance.between(25, 80));
  const [first, second] = [chance.between(-0.03, 0.03), chance.between(-0.015, 0.015)];
  const small = chemistry === "LFP" ? 0.4 : 1;
  const volts = REST_VOLTS[chemistry].map((value, i) => {
    const x = at(CHARGES, i);
    return value + small * (first * Math.sin(Math.PI * x) + second * Math.sin(2 * Math.PI * x));
  });
  for (let i = 1; i < volts.length; i += 1) volts[i] = Math.max(at(volts, i), at(volts, i - 1) + 0.001);
  const meanVolts = volts.slice(1).reduce((sum, volt, i) => sum + ((volt + at(volts, i)) / 2) * (at(CHARGES, i + 1) - at(CHARGES, i)), 0); // prettier-ignore
  const share = labelShare(chance, kind, years, cycles, isNew);
  const [least, most] = kind.tempC ?? [6, 30];
  return {
    pack: {
      ...{ chemistry, seriesCells, ampHours, labelWh },
      trueAh: (labelWh * share * (1 + USUALLY_KEPT)) / (seriesCells * meanVolts),
      ohm: ((0.08 * seriesCells) / ampHours) * chance.between(0.8, kind.aged ? 2.8 : 1.8),
      slowShare: chance.between(0.3, 0.9),
      slowS: chance.between(60, 300),
      coldShare: chance.between(0.002, 0.009),
      coldOhmK: chance.between(1200, 3200),
      tempC: Math.round(chance.between(least, most)),
      restVolts: (charge) => between(CHARGES, volts, charge),
      cutVolts: CUT_VOLTS[chemistry],
    },
    known: kind.aged
      ? { firstUsedOn: `${year - years}-04-01`, cycles }
      : isNew
        ? { firstUsedOn: `${year}-05-01`, cycles: 5 }
        : {},
  };
}

/** What can be taken out at its temperature, Ah. */
export const availableAh = ({ trueAh, coldShare, tempC }: Pack): number =>
  trueAh * (1 - coldShare * Math.max(0, WARM_C - tempC));

const ohmAt = (pack: Pack, charge: number): number =>
  pack.ohm *
  Math.exp(pack.coldOhmK * (1 / kelvin(pack.tempC) - 1 / REFERENCE_K)) *
  (1 + 5 * Math.max(0, 0.15 - charge));

export interface Drawn {
  readonly charge: Charge;
  readonly volts: number;
  readonly amps: number;
  /** Its own switch opened: no more comes out. */
  readonly isCut: boolean;
}

/** One second of a power at the terminals, W: a source behind a resistance, part of which comes slowly. */
export function draw(pack: Pack, { share, slowV, usedWh, usedAh }: Charge, watts: number): Drawn {
  const source = pack.seriesCells * pack.restVolts(share) - slowV;
  const ohm = ohmAt(pack, share);
  const most = (source * source) / (4 * ohm);
  const power = Math.min(watts, 0.95 * most);
  const amps = (source - Math.sqrt(source * source - 4 * ohm * power)) / (2 * ohm);
  const volts = source - ohm * amps;
  const settles = amps * ohm * pack.slowShare;
  return {
    charge: {
      share: Math.max(0, share - amps / (3600 * availableAh(pack))),
      slowV: slowV + (settles - slowV) / pack.slowS,
      usedWh: usedWh + power / 3600,
      usedAh: usedAh + amps / 3600,
    },
    ...{ volts, amps },
    isCut: share <= 0 || volts / pack.seriesCells < pack.cutVolts || power < watts,
  };
}

/** What a bench takes out of a full pack at a steady 60 W in a warm room, Wh. */
export function benchWh(pack: Pack): number {
  const warm = { ...pack, tempC: 25 };
  let drawn: Drawn = {
    charge: { share: 1, slowV: 0, usedWh: 0, usedAh: 0 },
    volts: 0,
    amps: 0,
    isCut: false,
  };
  while (!drawn.isCut) drawn = draw(warm, drawn.charge, BENCH_W);
  return drawn.charge.usedWh;
}

/** Volts of a pack some minutes after it was last drawn from. */
export const restedVolts = (pack: Pack, { share, slowV }: Charge, minutes: number): number =>
  pack.seriesCells * pack.restVolts(share) - slowV * Math.exp((-minutes * 60) / pack.slowS);
