import { err, ok, type Result } from "#core/base";
import {
  bikeSchema,
  packRecordSchema,
  riderSchema,
  testRecordSchema,
  testSchema,
  type TestRecord,
} from "#core/records";
import { seriesOfVolts } from "#core/battery";
import type { EntryBody } from "#core/ride/log";
import { analyseTest } from "../analyse.ts";
import type { TestResults } from "../types.ts";
import { findFacts, type SetUpFacts } from "./facts.ts";
import { readMoments, type Moment } from "./moments.ts";

/** A test made of a few words, and how they were taken. */
export interface QuickTest {
  readonly record: TestRecord;
  /** What each part was understood as. */
  readonly says: readonly string[];
  readonly unread: readonly string[];
  /** What nobody said and is assumed, in sentences. */
  readonly assumed: readonly string[];
}

/** Levels nobody named: by their numbers. */
const LEVELS = ["1", "2", "3", "4", "5"];
const USUAL_BARS = 5;

/** How many bars there are, where it is said: "3 of 5 bars", "3 bars left of 5". */
const BARS_OF =
  /\b\d+\s*(?:of|\/)\s*(\d{1,2})\s*bars?\b|\b\d+\s*bars?\s*(?:left\s*)?(?:of|\/)\s*(\d{1,2})\b/i;

const isPack = ({ labelWh, nominalVolts, ampHours }: SetUpFacts) =>
  labelWh !== null || (nominalVolts !== null && ampHours !== null);

function packOf({ labelWh, nominalVolts, ampHours }: SetUpFacts) {
  const byVolts = nominalVolts !== null && ampHours !== null ? nominalVolts * ampHours : undefined;
  return packRecordSchema.safeParse({
    name: "Pack",
    labelWh: labelWh ?? byVolts,
    ...(ampHours !== null && { ampHours }),
    ...(nominalVolts !== null && { seriesCells: seriesOfVolts("NMC", nominalVolts) }),
    pencil: ["chemistry", ...(nominalVolts === null ? [] : ["seriesCells"])],
  });
}

/** The first level and ground hold for the whole ride where only one is named. */
function conditionsIn(moments: readonly Moment[]) {
  const named = (key: string) =>
    moments.flatMap(({ body }) => (key in body ? [String(body[key as keyof EntryBody])] : []));
  const [levels, grounds] = [named("level"), named("ground")];
  const level = levels.length === 1 ? levels[0] : undefined;
  return { level, ground: grounds.length === 1 ? grounds[0] : undefined };
}

/** The log of a few moments: a start that nobody told is a full one, in pencil. */
function logOf(moments: readonly Moment[], whole: { readonly level?: unknown; readonly ground?: unknown }) {
  const begins = moments.some(({ isStart }) => isStart);
  const bodies = moments.map(({ body }): EntryBody => {
    const {
      level: _level,
      ground: _ground,
      ...rest
    } = body as EntryBody & { level?: unknown; ground?: unknown };
    return {
      ...rest,
      ...("level" in body && whole.level === undefined && { level: body.level }),
      ...("ground" in body && whole.ground === undefined && { ground: body.ground }),
    } as EntryBody;
  });
  const told = bodies.filter((body) => Object.keys(body).length > 1);
  const log = begins ? told : [{ kind: "start", chargerDone: true } satisfies EntryBody, ...told];
  // A counter that is read once counted from nothing.
  const counts = log.filter((body) => "counterWh" in body).length === 1;
  return log.map((body, i) =>
    counts && i === 0 && body.kind === "start" ? { ...body, counterWh: 0 } : body,
  );
}

function assumptions(
  facts: SetUpFacts,
  told: { readonly start: boolean; readonly level: boolean; readonly air: boolean },
) {
  return [
    told.start ? null : "It started from a full charge.",
    facts.riderKg === null ? "A rider of typical weight." : null,
    facts.bikeKg === null ? "A bike of typical weight." : null,
    told.air ? null : "The pack was as warm as a mild day.",
    told.level ? null : "Pedalled, at no level in particular, on asphalt.",
  ].filter((sentence) => sentence !== null);
}

/**
 * Makes a test of notes as one would say them: "52 V 17 Ah, full, 27 mi, 31 % left, throttle, 175 lb rider".
 *
 * @param day the test is of, 2026-10-18
 * @param newId ids for the log's entries, UUIDv7
 * @param name of the bike; one that nobody named is called so
 * @returns what to type where no pack or no distance is said
 */
export function readQuick(notes: string, day: string, newId: () => string, name = ""): Result<QuickTest> {
  const { facts, says, rest } = findFacts(notes);
  const problem = (code: string, sentence: string): Result<never> => err(code, "notes", sentence);
  if (!isPack(facts))
    return problem(
      "no-pack",
      "Say which pack it has: its volts and amp-hours (52 V 17 Ah), or its Wh (612 Wh).",
    );
  const bars = BARS_OF.exec(rest)?.slice(1).find(Boolean);
  const read = readMoments(rest, { levels: LEVELS, throttle: true });
  if (!read.moments.some(({ body }) => "distanceM" in body))
    return problem("no-distance", "Say how far it was ridden: 27 mi, or 43 km.");
  const { level, ground } = conditionsIn(read.moments);
  const start = read.moments.some(({ isStart }) => isStart);
  const bodies = logOf(read.moments, { level, ground });
  const ended = bodies.some((body) => body.kind === "end" && body.reason !== "byChoice");
  const pack = packOf(facts);
  const record = pack.success
    ? testRecordSchema.safeParse({
        test: testSchema.safeParse({
          title: "Quick figure",
          day,
          school: ended ? "run-down" : "part charge",
          drive: level === "throttle" ? "throttle" : "pedal",
          ...(level !== undefined && { firstLevel: level }),
          ...(ground !== undefined && { firstGround: ground }),
          ...(facts.airTempC !== null && { airTempC: facts.airTempC }),
          pencil: [
            ...(facts.airTempC === null ? ["airTempC"] : []),
            ...(ground === undefined ? ["firstGround"] : []),
          ],
        }).data,
        bike: bikeSchema.safeParse({
          name: name.trim() || "Unnamed bike",
          levels: LEVELS,
          throttle: level === "throttle",
          bars: bars === undefined ? (bodies.some((body) => "bars" in body) ? USUAL_BARS : 0) : Number(bars),
          ...(facts.bikeKg !== null && { massKg: facts.bikeKg }),
          claims: facts.claimM ? [{ lowM: facts.claimM[0], highM: facts.claimM[1] }] : [],
          pencil: ["levels", "motor", "counts"],
        }).data,
        pack: pack.data,
        rider:
          facts.riderKg === null
            ? null
            : riderSchema.safeParse({ name: "Unnamed rider", massKg: facts.riderKg, pencil: ["name"] }).data,
        rides: [
          {
            name: "Ride 1",
            entries: bodies.map((body, seq) => ({ id: newId(), seq, at: null, body, supersedes: null })),
          },
        ],
      })
    : pack;
  if (!record.success) return problem("odd", there(record.error.issues));
  return ok({
    record: record.data as TestRecord,
    says: [...says, ...read.says],
    unread: read.unread,
    assumed: assumptions(facts, { start, level: level !== undefined, air: facts.airTempC !== null }),
  });
}

const there = (issues: readonly { readonly message: string }[]): string =>
  issues[0]?.message ?? "This cannot be read: say it as 52 V 17 Ah, full, 27 mi, 31 % left.";

/** A quick figure: the test made of the words, and everything known of it. */
export function quickFigure(
  notes: string,
  day: string,
  newId: () => string,
): Result<{ readonly quick: QuickTest; readonly results: TestResults }> {
  const quick = readQuick(notes, day, newId);
  if (!quick.ok) return quick;
  const results = analyseTest(quick.value.record);
  if (!results.ok) return results;
  if (results.value.best.value.mean <= 0)
    return err(
      "no-use",
      "notes",
      "The charge does not fall along this ride: check the figures and their order.",
    );
  return ok({ quick: quick.value, results: results.value });
}
