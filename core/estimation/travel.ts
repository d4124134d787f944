import { there, nth, METRES_PER_MILE, DEFAULTS, STANDARD_GRAVITY } from "#core/base";
import { rateColumn, type Columns } from "./columns.ts";
import { addTo, combine, type LinearForm } from "./linearForm.ts";
import { EXACT, ROAD, type LedgerRow } from "./rows.ts";
import type { LedgerInput } from "./schema.ts";

/** Fraction of the pack used in a cell: a form, and the variance of what the form cannot know (how a leg's scatter split). */
export interface CellUse {
  readonly form: LinearForm;
  readonly variance: number;
}

export interface Travel {
  /** One row per leg and one per start, over all rides. */
  readonly rows: readonly LedgerRow[];
  /** Fraction used within each cell (rate and scatter, not climb), by ride. */
  readonly cellUse: readonly ReadonlyMap<string, CellUse>[];
}

type Leg = LedgerInput["rides"][number]["legs"][number];

/**
 * Sd of one leg's scatter in fractions: 25 % of a mile's energy over a mile, growing with the root of distance.
 *
 * @param lengthM of the leg
 * @example scatterSd(4 * 1609.344, 500).toFixed(3) === "0.015"
 */
export function scatterSd(lengthM: number, capacityWh: number): number {
  const long = Math.max(lengthM / METRES_PER_MILE, DEFAULTS.shortestLegMi);
  return (DEFAULTS.scatterShare * DEFAULTS.rateWhPerMi * Math.sqrt(long)) / capacityWh;
}

/** Names each part of each leg of a section by section, order and part; null outside sections. */
function sectionKeys(input: LedgerInput): readonly (readonly (string | null)[])[] {
  const keys = input.rides.map(({ legs }) => {
    const seen = new Map<string, number>();
    return legs.map(({ section }) => {
      if (section === undefined) return null;
      const order = seen.get(section) ?? 0;
      seen.set(section, order + 1);
      return `${section}/${order}`;
    });
  });
  const counts = new Map<string, number>();
  for (const key of keys.flat()) if (key !== null) counts.set(key, (counts.get(key) ?? 0) + 1);
  return keys.map((ride) => ride.map((key) => (key !== null && there(counts.get(key)) > 1 ? key : null)));
}

/** What the climb of a leg takes: columns and coefficients of the two shares, up and down. */
function climbForm(columns: Columns, leg: Leg, massKg: number, capacityWh: number): LinearForm {
  const { gainM = 0, lossM = 0 } = leg;
  if (gainM + lossM === 0) return new Map();
  const { liftShare, liftSdShare } = DEFAULTS;
  const lift = (massKg * STANDARD_GRAVITY) / (3600 * DEFAULTS.liftEfficiency) / capacityWh;
  const up = columns.unknowns.add("climb up", liftShare, liftSdShare, "climb");
  const down = columns.unknowns.add("climb down", liftShare, liftSdShare, "climb");
  return new Map([
    [up, gainM * lift],
    [down, lossM * lift * DEFAULTS.descentShare],
  ]);
}

/**
 * The travel rows: V_k - V_(k-1) = sum of metres x rate + climb + scatter. Runs of one section share 70 % of their scatter
 * variance. A charge in between leaves the next mark as open as a start. Metres, kg, Wh.
 */
export function travelRows(input: LedgerInput, columns: Columns): Travel {
  const rows: LedgerRow[] = [];
  const sections = sectionKeys(input);
  const open = (mark: number) =>
    rows.push({
      form: new Map([[mark, 1]]),
      value: DEFAULTS.startAt,
      errors: [{ source: null, sd: DEFAULTS.startSd }],
      floor: EXACT,
    });
  const cellUse = input.rides.map((ride, r) => {
    const uses = new Map<string, { readonly form: Map<number, number>; variance: number }>();
    const first = nth(columns.firstMark, r);
    const capacityWh = nth(columns.usable, ride.pack).mean;
    const massKg = ride.massKg ?? input.massKg ?? DEFAULTS.massKg;
    open(first);
    ride.legs.forEach((leg, i) => {
      if (leg.charged) {
        open(first + i + 1);
        return;
      }
      const parts = Object.entries(leg.metres);
      const total = parts.reduce((sum, [, metres]) => sum + metres, 0);
      const sd = scatterSd(total, capacityWh);
      const key = nth(nth(sections, r), i);
      const own = key === null ? 1 : 1 - DEFAULTS.pairedShare;
      const spent = parts.map(([cell, metres], part) => {
        const share = total > 0 ? metres / total : 1 / parts.length;
        const form = new Map([[rateColumn(columns, ride.pack, cell), metres]]);
        if (key !== null && share > 0) {
          const shared = columns.unknowns.add(`section ${key}/${part}`, 0, 1, ROAD);
          form.set(shared, sd * Math.sqrt(share * DEFAULTS.pairedShare));
        }
        return { cell, share, form };
      });
      const climb = climbForm(columns, leg, massKg, capacityWh);
      const left = combine([
        [new Map([[first + i + 1, 1], [first + i, -1]]), 1], // prettier-ignore
        ...spent.map(({ form }) => [form, -1] as const),
        [climb, -1],
      ]);
      const ownSd = sd * Math.sqrt(own);
      rows.push({ form: left, value: 0, errors: [{ source: ROAD, sd: ownSd }], floor: EXACT });
      for (const { cell, share, form } of spent) {
        let use = uses.get(cell);
        if (!use) uses.set(cell, (use = { form: new Map(), variance: 0 }));
        addTo(use.form, form, 1);
        addTo(use.form, left, share);
        use.variance += ownSd * ownSd * share * (1 - share);
      }
    });
    return uses;
  });
  return { rows, cellUse };
}
