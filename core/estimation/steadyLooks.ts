import type { Reading, Row } from "#core/battery/readings";

/** Far more than a pack: what has this error says nothing. */
const NOTHING = 10;

/**
 * Looks at one unchanged bar are one reading, and the last of them the one that tells most: the others are left without
 * weight. Where the bar's going was noted as well, that tells all, and none of the looks adds to it.
 *
 * @param readings of one ride, in order; @param rows of the same readings
 */
export function lastSteadyLooks(readings: readonly Reading[], rows: readonly Row[]): readonly Row[] {
  const looks = readings.flatMap((reading, i) =>
    reading.kind === "bars" ? [{ i, mark: reading.mark, bars: reading.bars }] : [],
  );
  looks.sort((a, b) => a.mark - b.mark);
  const went = readings.flatMap((reading) => (reading.kind === "barLost" ? [reading] : []));
  const told = new Set(
    looks.flatMap(({ i, mark, bars }, place) =>
      looks[place + 1]?.bars === bars || went.some((lost) => lost.bar === bars && lost.mark >= mark)
        ? [i]
        : [],
    ),
  );
  return rows.map((row, i) =>
    told.has(i) ? { ...row, errors: [...row.errors, { source: "bar width", sd: NOTHING }] } : row,
  );
}
