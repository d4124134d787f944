import type { Ridden, TurnSeen } from "#core/live";
import { END_NAMES } from "#core/fields";
import { FASTEST_MPS, writeLine, type LineSetting, type LiveEntry, type EntryBody } from "#core/ride/log";
import { formatBare, type DimensionName, type System } from "#core/base";
import type { Bike } from "#core/records";
import type { TestResults } from "#core/analysis";

/** Where a ride's log stands, for the buttons and the list. */
export interface LogState {
  readonly started: boolean;
  readonly standing: boolean;
  readonly level: string;
  readonly ground: string;
  /** Number of the bar that goes next; 0 when the display has none. */
  readonly nextBar: number;
  /** Last values by field, as typed figures. */
  readonly last: Readonly<Record<string, string>>;
  readonly ended: boolean;
  /** Newest first. */
  readonly newest: readonly LiveEntry[];
}

const LAST: readonly (readonly [field: string, dimension: DimensionName])[] = [
  ["distanceM", "distance"],
  ["percent", "percent"],
  ["bars", "count"],
  ["packVolts", "volts"],
];

/** Reads the state of a ride off its folded log. */
export function stateOf(
  live: readonly LiveEntry[],
  bike: Bike,
  first: { readonly level: string; readonly ground: string },
  system: System,
): LogState {
  const counted = live.filter(({ struck }) => !struck);
  const newestWith = (field: string) =>
    [...counted].reverse().find(({ body }) => (body as Record<string, unknown>)[field] !== undefined);
  const last = Object.fromEntries(
    LAST.flatMap(([field, dimension]) => {
      const found = newestWith(field);
      const value = (found?.body as Record<string, number> | undefined)?.[field];
      return value === undefined ? [] : [[field, formatBare(value, dimension, system)]];
    }),
  );
  const stops = counted.filter(({ body: { kind } }) => kind === "stop" || kind === "go");
  const lost = counted.filter(({ body: { kind } }) => kind === "barLost").length;
  const text = (field: string, otherwise: string) =>
    String((newestWith(field)?.body as Record<string, unknown> | undefined)?.[field] ?? otherwise);
  return {
    started: counted.length > 0,
    standing: stops.at(-1)?.body.kind === "stop",
    level: text("level", first.level),
    ground: text("ground", first.ground),
    nextBar: Math.max(0, bike.bars - lost),
    last,
    ended: counted.some(({ body: { kind } }) => kind === "end"),
    newest: [...live].reverse(),
  };
}

/** Digits of a quantity in the list of entries. */
const SHORT = 2;

/** An entry in the words of the line: short for the list, whole to be corrected. */
export function entryText(
  { body }: Pick<LiveEntry, "body">,
  setting: LineSetting,
  system: System,
  whole = false,
): string {
  const line = whole ? writeLine(body, setting, system) : writeLine(body, setting, system, SHORT);
  if (body.kind === "end") {
    const figures = writeLine({ ...body, kind: "checkIn" }, setting, system, SHORT);
    return `end: ${END_NAMES[body.reason]} ${figures ?? ""}`.trim();
  }
  return line || body.kind;
}

/** What is told once an entry is kept, and how it is undone. */
export function savedSentence(body: EntryBody, setting: LineSetting, system: System): string {
  if (body.kind === "strike") return "Struck. Restore brings it back.";
  if (body.kind === "restore") return "Restored.";
  return `Saved: ${entryText({ body }, setting, system)}. Strike, first in Last entries, undoes it.`;
}

/** Whether the line has words for an entry, so that it can be corrected there. */
export const hasLine = ({ body }: Pick<LiveEntry, "body">, setting: LineSetting, system: System): boolean =>
  Boolean(writeLine(body, setting, system));

/** How a tick of the held-constant list begins, as a note of the log. */
export const HELD = "Held: ";

/** Lines of the held-constant list that the log says were seen to. */
export function heldIn(entries: readonly LiveEntry[]): ReadonlySet<string> {
  return new Set(
    entries.flatMap(({ struck, body }) =>
      !struck && body.kind === "note" && body.note.startsWith(HELD) ? [body.note.slice(HELD.length)] : [],
    ),
  );
}

/** How a turn rule of the rider's own begins, as a note of the log. */
export const TURN_RULE = "Turn at: ";

/** The rule that was set last; empty without one. */
export function turnRuleIn(entries: readonly LiveEntry[]): string {
  const set = entries.flatMap(({ struck, body }) =>
    !struck && body.kind === "note" && body.note.startsWith(TURN_RULE)
      ? [body.note.slice(TURN_RULE.length)]
      : [],
  );
  return set.at(-1) ?? "";
}

/** What the log shows of a turn rule: the last of each. */
export function turnSeenIn(entries: readonly LiveEntry[]): TurnSeen {
  const last = (of: (body: LiveEntry["body"]) => number | undefined) =>
    entries
      .flatMap(({ struck, body }) => {
        const value = struck ? undefined : of(body);
        return value === undefined ? [] : [value];
      })
      .at(-1) ?? null;
  return {
    distanceM: last(
      (body) =>
        ("distanceM" in body ? body.distanceM : undefined) ??
        ("displayM" in body ? body.displayM : undefined),
    ),
    percent: last((body) => ("percent" in body ? body.percent : undefined)),
    bars: last((body) => (body.kind === "barLost" ? body.bar - 1 : "bars" in body ? body.bars : undefined)),
    restVolts: last((body) => ("packVolts" in body && body.underLoad !== true ? body.packVolts : undefined)),
  };
}

/** Where each entry lies along the test, m, by its root id. */
export function placesOf({ course }: Pick<TestResults, "course">): ReadonlyMap<string, number> {
  return new Map(
    course.marks.flatMap(({ entries, distanceM }) =>
      entries.map(({ rootId }) => [rootId, distanceM] as const),
    ),
  );
}

/** Whether the times are of the ride, not of the typing. */
const isRidden = (metres: number, times: readonly { readonly timeS: number }[]) =>
  metres < FASTEST_MPS * (times.at(-1)!.timeS - times[0]!.timeS);

/** What the ride was like so far: its pace, its levels, and the wind typed in last. */
export function riddenOf(
  { course, distance }: Pick<TestResults, "course" | "distance">,
  entries: readonly LiveEntry[],
): Ridden {
  const times = course.marks.flatMap(({ ride, timeS }) => (timeS === null ? [] : [{ ride, timeS }]));
  const oneRide = times.length > 1 && times.every(({ ride }) => ride === times[0]!.ride);
  const winds = entries.flatMap(({ struck, body }) =>
    !struck && "windMps" in body && body.windMps !== undefined ? [body.windMps] : [],
  );
  return {
    atM: distance.value.mean,
    elapsedS: oneRide && isRidden(distance.value.mean, times) ? times.at(-1)!.timeS - times[0]!.timeS : null,
    levels: course.legs.flatMap(({ level, distanceM, charged }) => (charged ? [] : [{ level, distanceM }])),
    windMps: winds.at(-1) ?? null,
  };
}
