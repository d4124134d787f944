import { unitToken, there, type Problem } from "#core/base";
import type { EntryBody } from "#core/ride/log";
import type { ColumnField } from "./columns.ts";

type Seen = Readonly<Record<"distanceM" | "displayM" | "percent", number | undefined>>;

/** A charge that falls so many points does not do so within so few metres. */
const FALL_POINTS = 10;
const FALL_M = 500;
/** Two columns of the same way are never so far apart. */
const APART = 20;
const FEWEST = 3;

const valuesOf = (bodies: readonly EntryBody[], key: keyof Seen): readonly number[] =>
  bodies.flatMap((body) => (body as Partial<Seen>)[key] ?? []);
const spread = (values: readonly number[]) => Math.max(...values) - Math.min(...values);

/** Distances in another unit than was taken, by how the charge falls along them. */
function fallsAtOnce(bodies: readonly EntryBody[], key: "distanceM" | "displayM"): string | null {
  const [metres, percents] = [valuesOf(bodies, key), valuesOf(bodies, "percent")];
  if (metres.length < FEWEST || percents.length < 2) return null;
  const [way, fall] = [spread(metres), spread(percents)];
  return fall >= FALL_POINTS && way < FALL_M
    ? `The charge falls by ${Math.round(fall)} points over ${unitToken(way, "length", 0)} in all. Choose the unit of this column, for example mi or km.`
    : null;
}

/** Percents that were written as shares of one. */
function areShares(bodies: readonly EntryBody[]): string | null {
  const percents = valuesOf(bodies, "percent");
  const shares = percents.length >= FEWEST && percents.every((percent) => percent <= 1);
  return shares && percents.some((percent) => !Number.isInteger(percent))
    ? "These are shares of one, from 0 to 1: type percent, for example 63 for 0.63."
    : null;
}

/** Two distances of each row that are the same way in units that do not fit. */
function apart(bodies: readonly EntryBody[]): string | null {
  const ratios = bodies
    .flatMap((body) => {
      const { distanceM, displayM } = body as Partial<Seen>;
      return distanceM && displayM ? [displayM / distanceM] : [];
    })
    .sort((a, b) => a - b);
  if (ratios.length < FEWEST) return null;
  const middle = there(ratios[Math.floor(ratios.length / 2)]);
  return middle > APART || middle < 1 / APART
    ? "These distances and the recorder's are never of one ride. Choose the unit of this column, for example mi or km."
    : null;
}

/**
 * What only a whole column shows: it was read in a unit it was not written in. Each is asked about, naming the column.
 *
 * @param bodies entries of all rows that could be read
 */
export function scaleProblems(
  bodies: readonly EntryBody[],
): readonly (Omit<Problem, "path"> & { readonly field: ColumnField })[] {
  const found = (field: ColumnField, sentence: string | null) =>
    sentence === null ? [] : [{ field, code: "scale", sentence }];
  return [
    ...found("distance", fallsAtOnce(bodies, "distanceM")),
    ...found("display", fallsAtOnce(bodies, "displayM") ?? apart(bodies)),
    ...found("percent", areShares(bodies)),
  ];
}
