import { bikeMass, REFERENCES, type Reference } from "#core/bike";
import { comparedOf, rankUnder, type Compared, type Reckoned } from "#core/compare";
import { there, nth, spanOf, err, ok, type Result } from "#core/base";
import { conditionsSchema } from "./conditions.ts";

const HOUSE = nth(REFERENCES, 0);
const NAMES = REFERENCES.map(({ name }) => name).join(", ");
const ownSchema = conditionsSchema.partial({ massKg: true });

/** What a bundle's figures are brought to, for a test's bike. */
export type ReferenceFor = (compared: Compared) => Reference;

/**
 * Reads "under": a set's name, or conditions of one's own, in which a mass is that of bike, rider and load; left out, the
 * bike's with what House carries.
 *
 * @returns null where the request does not ask for it
 */
export function underOf(value: object): Result<ReferenceFor | null> {
  if (!("under" in value) || value.under === undefined) return ok(null);
  const { under } = value;
  if (typeof under === "string") {
    const named = REFERENCES.find(({ name }) => name.toLowerCase() === under.trim().toLowerCase());
    return named
      ? ok(() => named)
      : err(
          "no-reference",
          "under",
          `“${under}” is no reference: it is one of ${NAMES}, or conditions of your own.`,
        );
  }
  if (typeof under !== "object" || under === null || Array.isArray(under))
    return err(
      "reference",
      "under",
      `Give a set's name (${NAMES}) or conditions, for example {"speedMps": 6.7}.`,
    );
  const parsed = ownSchema.safeParse(under);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    return err("reference", ["under", ...there(issue).path].join("."), there(issue).message);
  }
  const { massKg, ...conditions } = parsed.data;
  return ok(({ ridden: { bike } }) => ({
    name: "own",
    version: 1,
    carriedKg: massKg === undefined ? HOUSE.carriedKg : Math.max(0, massKg - bikeMass(bike)),
    conditions,
  }));
}

/**
 * Tests of a bundle under a reference, from one posterior over all of them: each test's bike, and the order. Wh per metre,
 * m/s.
 *
 * @returns by place in the bundle; null for a test without a figure
 */
export function answerUnder(reckoned: readonly (Reckoned | null)[], referenceFor: ReferenceFor) {
  const places = reckoned.flatMap((each, i) => (each ? [i] : []));
  const compared = comparedOf(reckoned.filter((each) => each !== null));
  const { desk, ranked } = rankUnder(compared, referenceFor);
  const placeOf = (id: string) => nth(places, Number(id));
  const ranking = ranked.map(({ tests, under, behindNext, ...rest }) => ({
    ...rest,
    tests: tests.map(placeOf),
    whPerM: { ...under.whPerM, ...spanOf(under.whPerM) },
    behindNext,
  }));
  const under = reckoned.map((_, i) => {
    const rank = ranked.find(({ tests }) => tests.some((id) => placeOf(id) === i));
    const solved = desk.days.find(({ day }) => placeOf(day.id) === i);
    if (!rank || !solved) return null;
    const { whPerM, sources, heldMps } = rank.under;
    const atAssumptions = solved.day.linearise(
      solved.shared.map(() => 0),
      solved.own.map(() => 0),
    );
    return {
      whPerM: { ...whPerM, ...spanOf(whPerM) },
      lambda: nth(solved.day.measured, 0).mean / nth(atAssumptions.value, 0),
      sources,
      heldMps,
      /** How far it lies from what all others expect of it, sds, and how much wider it was made for that. */
      residual: solved.residual,
      widened: solved.widened,
    };
  });
  return { under, ranking };
}
