import type { LoggedReading, Mark } from "./timeline.ts";

/** The charge a mark ends with, and its entry. */
export const refillOf = ({ entries }: Pick<Mark, "entries">) => {
  const entry = entries.find(({ body, struck }) => body.kind === "refill" && !struck);
  return entry?.body.kind === "refill" ? { rootId: entry.rootId, body: entry.body } : null;
};

/** What the charges say: a full refill measures what was used since full, a part charge what came back. */
export function chargeReadings(marks: readonly Mark[]): readonly LoggedReading[] {
  return marks.flatMap((mark, at): readonly LoggedReading[] => {
    const refill = refillOf(mark);
    if (!refill) return [];
    const { rootId, body } = refill;
    const { wallWh, toFull, charger = "charger" } = body;
    const next = marks[at + 1];
    const said: LoggedReading["reading"][] = [];
    if (wallWh !== undefined && toFull)
      said.push({ kind: "wallRefill", mark: mark.index, wallWh, stepWh: 1, charger });
    if (wallWh !== undefined && !toFull && next)
      said.push({ kind: "wallCharge", fromMark: mark.index, toMark: next.index, wallWh, stepWh: 1, charger });
    if (toFull && next) said.push({ kind: "fullStart", mark: next.index });
    return said.map((reading) => ({ reading, rootId, field: null, struck: false }));
  });
}
