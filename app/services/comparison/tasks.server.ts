import type { System } from "#core/base";
import type { Reference } from "#core/bike";
import type { Database } from "#db/client";
import { deskVersion } from "#db/version";
import { deskMemory } from "../deskMemory.server";
import { Memo } from "../memo";
import type { StandingsAsk } from "./ask";
import { bikeKnown } from "./bike.server";
import { bridgeOf, pairUnder, pairWorth } from "./bridge.server";
import { claimedBikes } from "./claims.server";
import { climbsOf } from "./climbs.server";
import { knownOf, type KnownAsk } from "./known.server";
import { pairOf, type PairAsk } from "./pair.server";
import { standingsOf } from "./standings.server";

/** Answers of one desk that are remembered while it stays as it is. */
const MOST_ANSWERS = 120;
const answersOf = deskMemory(() => new Memo<Promise<unknown>>(MOST_ANSWERS));

/** A task whose answer holds until anything on the desk changes: asked again, it costs one small query. */
function whileUnchanged<Asked, Answer>(
  name: string,
  answer: (db: Database, asked: Asked) => Promise<Answer>,
): (db: Database, asked: Asked) => Promise<Answer> {
  return async (db, asked) => {
    const key = `${name} ${JSON.stringify(asked)} ${await deskVersion(db)}`;
    const answers = answersOf(db);
    const promise = answers.of(key, () => answer(db, asked)) as Promise<Answer>;
    promise.catch(() => answers.forget(key));
    return promise;
  };
}

interface UnderReference {
  readonly reference: Reference | null;
}

/** What compares the tests of the desk, by name. All of it runs on one thread, which remembers the desk. */
export const comparisonTasks = {
  standings: whileUnchanged(
    "standings",
    (db, { ask, reference }: UnderReference & { readonly ask: StandingsAsk }) =>
      standingsOf(db, ask, reference),
  ),
  claims: whileUnchanged(
    "claims",
    (db, { reference, tariffMinor }: { readonly reference: Reference; readonly tariffMinor: number }) =>
      claimedBikes(db, reference, tariffMinor),
  ),
  bikeKnown: whileUnchanged(
    "bikeKnown",
    (db, { bikeId, reference }: UnderReference & { readonly bikeId: string }) =>
      bikeKnown(db, bikeId, reference),
  ),
  climbs: whileUnchanged("climbs", (db, _asked: object) => climbsOf(db)),
  bridge: whileUnchanged(
    "bridge",
    (db, { testId, reference }: { readonly testId: string; readonly reference: Reference }) =>
      bridgeOf(db, testId, reference),
  ),
  pair: whileUnchanged("pair", (db, { ask, system }: { readonly ask: PairAsk; readonly system: System }) =>
    pairOf(db, ask, system),
  ),
  pairWorth: whileUnchanged("pairWorth", (db, { a, b }: { readonly a: string; readonly b: string }) =>
    pairWorth(db, a, b),
  ),
  pairUnder: whileUnchanged(
    "pairUnder",
    (
      db,
      {
        a,
        b,
        reference,
      }: { readonly a: readonly string[]; readonly b: readonly string[]; readonly reference: Reference },
    ) => pairUnder(db, { a, b }, reference),
  ),
  known: whileUnchanged("known", (db, asked: KnownAsk) => knownOf(db, asked)),
};
