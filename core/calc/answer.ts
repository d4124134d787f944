import { readBundle } from "#core/io";
import { liveView } from "#core/live";
import { nth, renderUnits, spanOf, type Estimate, err, ok, type Problem, type Result } from "#core/base";
import { cutRecord, lengthOf, analyseTest, type TestResults } from "#core/analysis";
import { CALCULATIONS } from "./calculations.ts";
import { answerUnder, underOf } from "./under.ts";

/** One line of output: the result itself, or an error with the first problem's path and sentence, and all problems. */
export type Answer =
  | { readonly ok: true; readonly value: unknown }
  | {
      readonly ok: false;
      readonly value: { readonly error: Problem; readonly problems: readonly Problem[] };
    };

function asAnswer(result: Result<unknown>): Answer {
  return result.ok
    ? { ok: true, value: result.value }
    : { ok: false, value: { error: nth(result.problems, 0), problems: result.problems } };
}

/** What to say of an exception of the core: a fault of ours, never told as one of the input's. */
export function faultOf(error: unknown): Problem {
  const said = error instanceof Error ? error.message : String(error);
  return {
    code: "fault",
    path: "",
    sentence: `This is a fault of Barometron, not of what was given (${said}). Nothing else is affected; please report it with the input.`,
  };
}

/** A calculation whose exceptions are its own problem alone. */
function safely<T>(calculate: () => Result<T>): Result<T> {
  try {
    return calculate();
  } catch (error) {
    return { ok: false, problems: [faultOf(error)] };
  }
}

/** Every sentence of a result written out in miles, however deep it lies. */
function spokenDeep(value: unknown): unknown {
  if (typeof value === "string") return renderUnits(value, "imperial");
  if (Array.isArray(value)) return value.map(spokenDeep);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, spokenDeep(inner)]));
}

/** The figures of a test for programs: SI units, sds as they stand, without what only the strip draws. */
export function testFigures(
  title: string,
  { course: _c, curve: _v, stretches: _s, profile: _p, series: _l, ...figures }: TestResults,
) {
  return spokenDeep({ title, ...figures }) as object;
}

/**
 * Way left from a place, m: to the end, to the end of full power, and with the reserve kept back; null before anything was
 * used. The log's last look may lie before the place: what was ridden since is taken off.
 */
function rangeLeft(results: TestResults, fromM: number) {
  const view = liveView(results);
  if (!view) return null;
  const since = Math.max(0, fromM - view.distanceM);
  const from = (left: Estimate) => {
    const { low, high } = spanOf(left);
    const less = (metres: number) => Math.max(0, metres - since);
    return { mean: less(left.mean), sd: left.sd, low: less(low), high: less(high) };
  };
  return {
    fromM: view.distanceM + since,
    ...from(view.toEnd),
    toFullPower: from(view.toFullPower),
    toReserve: from(view.toReserve),
  };
}

/** Where to cut the logs, m; null where the request does not ask for it. */
function cutOf(value: object): Result<number | null> {
  if (!("cutAt" in value) || value.cutAt === undefined) return ok(null);
  const { cutAt } = value;
  return typeof cutAt === "number" && cutAt > 0
    ? ok(cutAt)
    : err("cut", "cutAt", "Cut at a distance in metres, more than 0, for example 16093.");
}

function answerBundle(value: object): Answer {
  const bundle = readBundle(value);
  if (!bundle.ok) return asAnswer(bundle);
  const cut = cutOf(value);
  if (!cut.ok) return asAnswer(cut);
  const referenceFor = underOf(value);
  if (!referenceFor.ok) return asAnswer(referenceFor);
  const results = bundle.value.tests.map((whole) => {
    const record = cut.value === null ? whole : cutRecord(whole, cut.value);
    return {
      ...{ title: whole.test.title, record, result: safely(() => analyseTest(record)) },
      fromM: cut.value === null ? 0 : Math.min(cut.value, lengthOf(whole)),
    };
  });
  const brought =
    referenceFor.value &&
    answerUnder(
      results.map(({ record, result }) => (result.ok ? { record, results: result.value } : null)),
      referenceFor.value,
    );
  const tests = results.map(({ title, result, fromM }, i) =>
    result.ok
      ? {
          ...testFigures(title, result.value),
          rangeLeft: rangeLeft(result.value, fromM),
          ...(brought && { under: brought.under[i] }),
        }
      : { title, error: nth(result.problems, 0), problems: result.problems },
  );
  const order = brought && { ranking: brought.ranking };
  const failed = results.findIndex(({ result }) => !result.ok);
  if (failed < 0) return { ok: true, value: { tests, ...order } };
  const { result } = nth(results, failed);
  const problems = result.ok
    ? []
    : result.problems.map((problem) => ({ ...problem, path: `tests.${failed}.${problem.path}` }));
  return { ok: false, value: { error: nth(problems, 0), problems, tests, ...order } as never };
}

/** Answers one request: a bundle, or a calculation with its input. Never throws. */
export function answer(request: unknown): Answer {
  try {
    return answerTo(request);
  } catch (error) {
    return asAnswer({ ok: false, problems: [faultOf(error)] });
  }
}

function answerTo(request: unknown): Answer {
  if (typeof request !== "object" || request === null || Array.isArray(request))
    return asAnswer(
      err("not-a-request", "", 'Give an object: a bundle, or {"calculation": NAME, "input": {...}}.'),
    );
  if ("tests" in request || "format" in request) return answerBundle(request);
  const name = "calculation" in request ? request.calculation : undefined;
  const known = Object.keys(CALCULATIONS).join(", ");
  if (typeof name !== "string")
    return asAnswer(err("no-calculation", "calculation", `Name a calculation: ${known}.`));
  const found = Object.hasOwn(CALCULATIONS, name) ? CALCULATIONS[name] : undefined;
  if (!found)
    return asAnswer(
      err("unknown-calculation", "calculation", `“${name}” is not a calculation: it is one of ${known}.`),
    );
  const result = found.run("input" in request ? request.input : undefined);
  return asAnswer(
    result.ok
      ? result
      : {
          ok: false,
          problems: result.problems.map((problem) => ({
            ...problem,
            path: ["input", problem.path].filter(Boolean).join("."),
          })),
        },
  );
}

/**
 * Answers a whole text: one JSON value, an array of them, or JSON lines. One bad line does not stop the others.
 *
 * @returns answers in the order of the requests
 */
export function answerText(text: string): readonly Answer[] {
  const trimmed = text.replace(/^\ufeff/, "").trim();
  const broken = (where: string, error: unknown): Answer =>
    asAnswer(
      err(
        "not-json",
        where,
        `This is not JSON: ${error instanceof Error ? error.message : "it cannot be read"}.`,
      ),
    );
  if (trimmed === "")
    return [asAnswer(err("empty", "", "The input is empty: give a bundle or a calculation as JSON."))];
  const parse = (json: string) => {
    try {
      return { value: JSON.parse(json) as unknown, good: true };
    } catch (error) {
      return { value: error, good: false };
    }
  };
  const whole = parse(trimmed);
  if (whole.good) return Array.isArray(whole.value) ? whole.value.map(answer) : [answer(whole.value)];
  const lines = trimmed
    .split(/\r?\n/)
    .map((line, i) => ({ line, number: i + 1 }))
    .filter(({ line }) => line.trim() !== "");
  if (lines.length === 1) return [broken("", whole.value)];
  const parsed = lines.map(({ line, number }) => ({ number, ...parse(line) }));
  if (parsed.every((item) => !item.good)) return [broken("", whole.value)];
  return parsed.map(({ value, number, good }) => (good ? answer(value) : broken(`line ${number}`, value)));
}
