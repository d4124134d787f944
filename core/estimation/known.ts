import { nth, type Estimate } from "#core/base";
import { bowAt, type ErrorSource } from "#core/battery/readings";
import type { Columns } from "./columns.ts";
import type { LinearForm } from "./linearForm.ts";
import { EXACT, type LedgerRow } from "./rows.ts";
import type { LedgerInput } from "./schema.ts";

/** Where a bar of a gauge goes out: its own threshold with what all bars share; null where nothing leans on it. */
export function barForm({ unknowns, marks }: Columns, gauge: string, bar: number): LinearForm | null {
  const own = unknowns.find(`${gauge}/bar ${bar}`);
  if (own === undefined) return null;
  const { mean } = nth(unknowns.list, own - marks);
  const form = new Map([[own, 1]]);
  const [shift, bow] = [unknowns.find(`${gauge}/bar shift`), unknowns.find(`${gauge}/bar bow`)];
  if (shift !== undefined) form.set(shift, 1);
  if (bow !== undefined) form.set(bow, bowAt(mean));
  return form;
}

/** Where a point of a gauge lies: "bar 3", "last bar", "low power"; null where nothing leans on it. */
export function pointForm(columns: Columns, gauge: string, point: string): LinearForm | null {
  const bar = /^bar (\d+)$/.exec(point);
  if (bar) return barForm(columns, gauge, Number(bar[1]));
  const own = columns.unknowns.find(`${gauge}/${point}`);
  return own === undefined ? null : new Map([[own, 1]]);
}

const SOURCES: Readonly<Record<string, ErrorSource>> = {
  "last bar": "last-bar point",
  "low power": "low-power point",
};

/** What other ledgers found of the same gauges and packs, as rows: only of what this one leans on. */
export function knownRows({ known = [] }: LedgerInput, columns: Columns): readonly LedgerRow[] {
  return known.flatMap(({ of, name, point, mean, sd }): readonly LedgerRow[] => {
    const capacity = columns.capacity[name];
    const pack = columns.usable[name];
    if (of === "pack")
      return capacity === undefined || !pack
        ? []
        : [
            {
              form: new Map([[capacity, 1]]),
              value: mean,
              errors: [{ source: "capacity", sd }],
              floor: EXACT * pack.mean,
            },
          ];
    const form = pointForm(columns, name, point);
    const source = SOURCES[point] ?? "bar thresholds";
    return form ? [{ form, value: mean, errors: [{ source, sd }], floor: EXACT }] : [];
  });
}

/** A form before any evidence. */
export function priorOf({ unknowns, marks }: Columns, form: LinearForm): Estimate {
  let [mean, variance] = [0, 0];
  for (const [column, coefficient] of form) {
    const unknown = nth(unknowns.list, column - marks);
    mean += coefficient * unknown.mean;
    variance += (coefficient * unknown.sd) ** 2;
  }
  return { mean, sd: Math.sqrt(variance) };
}
