import type { ErrorSource } from "#core/battery/readings";
import { nth, METRES_PER_MILE, DEFAULTS, errs, ok, type Problem, type Result } from "#core/base";
import { usableOnRide, type UsableEnergy } from "#core/battery";
import { GP_NODES } from "./gpBasis.ts";
import type { LedgerInput } from "./schema.ts";

/** An unknown of the model, normal before any evidence. */
export interface LedgerUnknown {
  readonly key: string;
  readonly mean: number;
  readonly sd: number;
  /** The budget's name of it; null for what is asked (rates, starts), which are not error sources. */
  readonly source: ErrorSource | null;
}

/** The unknowns of a ledger beside its fractions, each once by key. */
export class Unknowns {
  readonly list: LedgerUnknown[] = [];
  private readonly places = new Map<string, number>();

  /** @param firstColumn where the unknowns start among the columns: after the marks */
  constructor(private readonly firstColumn: number) {}

  /** The column of an unknown, made at its first naming. */
  add(key: string, mean: number, sd: number, source: ErrorSource | null): number {
    const known = this.places.get(key);
    if (known !== undefined) return this.firstColumn + known;
    this.places.set(key, this.list.length);
    return this.firstColumn + this.list.push({ key, mean, sd, source }) - 1;
  }

  /** The same unknowns in a list of its own, to try further rows on. */
  copy(): Unknowns {
    const copy = new Unknowns(this.firstColumn);
    for (const { key, mean, sd, source } of this.list) copy.add(key, mean, sd, source);
    return copy;
  }

  /** The column of a key, or undefined when no row leans on it. */
  find(key: string): number | undefined {
    const place = this.places.get(key);
    return place === undefined ? undefined : this.firstColumn + place;
  }
}

/** Where everything stands among the columns: the marks of all rides in a row, then the unknowns. */
export interface Columns {
  readonly marks: number;
  /** Column of mark 0 of each ride. */
  readonly firstMark: readonly number[];
  readonly unknowns: Unknowns;
  readonly usable: Readonly<Record<string, UsableEnergy>>;
  /** Column of each pack's capacity, Wh. */
  readonly capacity: Readonly<Record<string, number>>;
}

/** Column of a cell's rate on a pack: fraction of the pack per metre. */
export function rateColumn({ unknowns, usable }: Columns, pack: string, cell: string): number {
  const milesWh = nth(usable, pack).mean * METRES_PER_MILE;
  return unknowns.add(
    `rate ${pack}/${cell}`,
    DEFAULTS.rateWhPerMi / milesWh,
    DEFAULTS.rateSdWhPerMi / milesWh,
    null,
  );
}

/** The budget's names of the two slow errors. */
export const SMOOTH_SOURCE = { gauge: "gauge smooth", curve: "volts curve" } as const;

/** First of the columns of the standard normals that make up one slow error; they stand in a row. */
export function smoothColumn({ unknowns }: Columns, process: "gauge" | "curve", of: string): number {
  const first = unknowns.find(`${process} ${of} 0`);
  if (first !== undefined) return first;
  const columns = Array.from({ length: GP_NODES }, (_, j) =>
    unknowns.add(`${process} ${of} ${j}`, 0, 1, SMOOTH_SOURCE[process]),
  );
  return nth(columns, 0);
}

/** Lays out the columns of an input: marks, and each pack's capacity; the rest is added as rows lean on it. */
export function layColumns(input: LedgerInput): Result<Columns> {
  const firstMark: number[] = [];
  let marks = 0;
  for (const { legs } of input.rides) {
    firstMark.push(marks);
    marks += legs.length + 1;
  }
  const unknowns = new Unknowns(marks);
  const usable: Record<string, UsableEnergy> = {};
  const capacity: Record<string, number> = {};
  const problems: Problem[] = [];
  const several = Object.keys(input.packs).length > 1;
  for (const [name, pack] of Object.entries(input.packs)) {
    const found = usableOnRide(pack);
    if (!found.ok) {
      const at = several ? `packs.${name}` : "pack";
      problems.push(...found.problems.map((problem) => ({ ...problem, path: `${at}.${problem.path}` })));
      continue;
    }
    usable[name] = found.value;
    capacity[name] = unknowns.add(`capacity ${name}`, found.value.mean, found.value.sd, "capacity");
  }
  return problems.length ? errs(problems) : ok({ marks, firstMark, unknowns, usable, capacity });
}
