import { href, data } from "react-router";
import { v5 as uuidv5 } from "uuid";
import { z } from "zod";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { recordSetting } from "#core/analysis";
import { checkEntry, entrySchema, foldLog, type Entry } from "#core/ride/log";
import { appendEntries, listEntries } from "#db/log";
import { loadRecord } from "#db/record";
import { findTest, listRides } from "#db/tests";
import { Page } from "#ui/page";
import { Said } from "./said/said";
import { factsSchema, writeInPencil } from "./said/setUp.server";
import type { Route } from "./+types/narration";

const GONE = "There is no such test.";
/** Lines that one narration may make. */
const MOST_LINES = 2000;
/** Ids are made of the ride and what was said where: a narration that is brought in again makes the same. */
const NAMESPACE = "6f2d5c0a-7b0e-5a52-9c3b-5d8d0f6f7a11";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const record = found(await loadRecord(db, idOf(params.testId, GONE)), GONE);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const rides = await listRides(db, line.id);
  const asked = new URL(request.url).searchParams.get("ride");
  const ride = rides.find(({ id }) => id === asked) ?? rides.at(-1)!;
  const { name, levels, bars } = record.bike;
  return {
    test: { id: line.id, title: line.test.title, day: record.test.day, bikeId: line.bikeId },
    bike: { name, levels, bars },
    ride: { id: ride.id, name: ride.name, zone: ride.zone },
  };
}

const linesSchema = z
  .array(
    z.object({
      at: entrySchema.shape.at,
      body: entrySchema.shape.body,
      source: entrySchema.shape.source.unwrap(),
      key: z.string().max(600),
    }),
  )
  .min(1, "Accept at least one moment.")
  .max(MOST_LINES, `That makes over ${MOST_LINES} lines: import the narration in parts.`);

const asJson = (text: unknown): unknown => {
  try {
    return JSON.parse(String(text));
  } catch {
    return null;
  }
};

/** What came of saving: how many lines are new, how many were there, and what the bike cannot have shown. */
export interface SaidAnswer {
  readonly kept: number;
  readonly there: number;
  readonly refused: readonly { readonly words: string; readonly sentence: string }[];
  readonly problem: string | null;
  /** What came of facts that were written in pencil, a sentence each. */
  readonly facts: readonly string[];
}

const NOTHING: SaidAnswer = { kept: 0, there: 0, refused: [], problem: null, facts: [] };

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, GONE);
  const record = found(await loadRecord(db, testId), GONE);
  const form = await request.formData();
  const ride = found(
    (await listRides(db, testId)).find(({ id }) => id === form.get("rideId")),
    "There is no such ride in this test.",
  );
  if (form.get("intent") === "setUp") {
    const facts = factsSchema.safeParse(asJson(form.get("facts")));
    const line = found(await findTest(db, testId), GONE);
    return facts.success
      ? data<SaidAnswer>({ ...NOTHING, facts: await writeInPencil(db, line, facts.data) })
      : data<SaidAnswer>({ ...NOTHING, problem: facts.error.issues[0]!.message }, { status: 400 });
  }
  const lines = linesSchema.safeParse(asJson(form.get("lines")));
  if (!lines.success) {
    const problem = lines.error.issues[0]!.message;
    return data<SaidAnswer>({ ...NOTHING, problem }, { status: 400 });
  }
  const log = await listEntries(db, ride.id);
  const setting = recordSetting(record);
  const known = new Set(log.map(({ id }) => id));
  const good: Entry[] = [];
  const refused: SaidAnswer["refused"][number][] = [];
  let live = foldLog(log);
  lines.data.forEach(({ key, at, body, source }, seq) => {
    const entry: Entry = {
      id: uuidv5(`${ride.id}/${key}`, NAMESPACE),
      seq,
      at,
      body,
      source,
      supersedes: null,
    };
    const timeS = at === null ? null : Date.parse(at) / 1000;
    const [problem] = known.has(entry.id)
      ? []
      : checkEntry(body, timeS, live, setting, Date.now() / 1000, systemOf(request));
    if (problem) {
      refused.push({ words: source.words, sentence: problem.sentence });
      return;
    }
    good.push(entry);
    if (!known.has(entry.id)) live = [...live, ...foldLog([entry])];
  });
  const verdicts = await appendEntries(db, ride.id, good);
  const kept = verdicts.filter(({ told }) => told === "kept").length;
  return data<SaidAnswer>({ ...NOTHING, kept, there: verdicts.length - kept, refused });
}

/** What was said over a ride, read in the browser: nothing enters the log until it is accepted. */
export default function NarrationPage({ loaderData: { test, bike, ride } }: Route.ComponentProps) {
  return (
    <Page
      title="Import what was said"
      line={`${bike.name}, ${test.title}, ${ride.name}: captions of a film, or pasted speech. Nothing enters the log until you accept it.`}
    >
      <Said test={test} bike={bike} ride={ride} back={href("/strip/:testId", { testId: test.id })} />
    </Page>
  );
}
