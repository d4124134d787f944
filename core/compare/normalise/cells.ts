import { conditionsOfTest, type Reference } from "#core/bike";
import type { DeskPosterior } from "#core/desk";
import type { Ground } from "#core/fields";
import { nth, err, ok, type Result } from "#core/base";
import type { Compared, PartOf } from "../compared.ts";
import { weightedMean, type ErrorComponents } from "../errorComponents.ts";
import { broughtTo, subjectOf } from "./normaliseTo.ts";

/** One level on one ground of a bike, over all its tests. */
export interface BikeCell {
  readonly level: string;
  readonly ground: string;
  readonly metres: number;
  /** Null: ridden, but no test's readings tell it from the rest. */
  readonly whPerM: ErrorComponents | null;
  /** Tests that tell it. */
  readonly tests: readonly string[];
}

/**
 * What each level takes on each ground, pooled over the tests whose readings tell it apart.
 *
 * @param figure of one part of one test: as ridden, in other air, or under a reference
 */
export function bikeCells(
  tests: readonly Compared[],
  figure: (
    compared: Compared,
    part: PartOf,
    cell: { readonly level: string; readonly ground: string },
  ) => Result<ErrorComponents>,
): readonly BikeCell[] {
  const ridden = new Map<string, { level: string; ground: string; metres: number }>();
  for (const { ridden: test } of tests)
    for (const { level, ground, distanceM } of test.results.parts) {
      const key = `${level}/${ground}`;
      const before = ridden.get(key);
      ridden.set(key, { level, ground, metres: (before?.metres ?? 0) + distanceM });
    }
  return [...ridden.values()].map(({ level, ground, metres }) => {
    const told = tests.flatMap((compared) => {
      const found = figure(compared, (own, on) => own === level && on === ground, { level, ground });
      return found.ok ? [{ id: compared.id, traced: found.value }] : [];
    });
    return {
      level,
      ground,
      metres,
      whPerM: told.length ? weightedMean(told.map(({ traced }) => traced)) : null,
      tests: told.map(({ id }) => id),
    };
  });
}

/**
 * What a level takes on a ground under a reference, ridden at the level's own speed: air, weight, rider, stops and climb are
 * the reference's. Wh per metre.
 */
export function cellUnder(
  desk: DeskPosterior,
  compared: Compared,
  reference: Reference,
  { level, ground }: { readonly level: string; readonly ground: string },
): Result<ErrorComponents> {
  const ride = conditionsOfTest(compared.ridden, (own, on) => own === level && on === ground);
  if (!ride) return err("not-ridden", "part", "It was not ridden so.");
  const speedMps = nth(ride.conditions.speedMps, level);
  const conditions = { ...reference.conditions, speedMps, ground: ground as Ground };
  const drive = level === "throttle" ? "throttle" : "pedal";
  return ok(broughtTo(desk, { ...subjectOf(compared), drive }, { ...reference, conditions }).traced);
}
