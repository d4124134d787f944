import { rowOf, type Reading, type Row, type Setting } from "#core/battery/readings";

/** Far more than a pack: what has this error says nothing. */
const NOTHING = 10;

/**
 * Looks at one unchanged bar are one reading, and the last of them the one that tells most: it lies late on the bar, the later the
 * more looks there were, and the others are left without weight. Where the bar's going was noted as well, that tells all, and none of
 * the looks adds to it.
 *
 * @param readings of one ride, in order; @param rows of the same readings
 */
export function lastSteadyLooks(
  readings: readonly Reading[],
  rows: readonly Row[],
  setting: Setting,
): readonly Row[] {
  const looks = readings.flatMap((reading, i) => (reading.kind === "bars" ? [{ i, reading }] : []));
  looks.sort((a, b) => a.reading.mark - b.reading.mark);
  const went = readings.flatMap((reading) => (reading.kind === "barLost" ? [reading] : []));
  const result = [...rows];
  let inRow = 0;
  looks.forEach(({ i, reading }, place) => {
    const { bars, mark, fewer } = reading;
    const row = rows[i];
    if (!row) return;
    inRow += 1;
    const hasGone = went.some((lost) => lost.bar === bars && lost.mark >= mark);
    if (looks[place + 1]?.reading.bars === bars || hasGone) {
      result[i] = { ...row, errors: [...row.errors, { source: "bar width", sd: NOTHING }] };
      return;
    }
    if (inRow > 1 && !fewer) {
      const told = rowOf({ ...reading, looks: inRow }, setting);
      // What the row has besides, such as the doubt of its place, stays.
      result[i] = {
        ...told,
        errors: [...told.errors, ...row.errors.filter(({ source }) => source !== "bar width")],
      };
    }
    inRow = 0;
  });
  return result;
}
