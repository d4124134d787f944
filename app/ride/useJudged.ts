import { useMemo } from "react";
import {
  againstGuess,
  againstPlan,
  liveTurn,
  liveView,
  oddReadings,
  reasonsFor,
  reasonsText,
} from "#core/live";
import type { LiveEntry } from "#core/log";
import { routeOf, type PlanRecord } from "#core/plan";
import type { TestResults } from "#core/results";
import { placesOf, riddenOf } from "./state";

/** What a ride so far comes to: what is left, how it goes against plan and display, and what wants an answer. */
export function useJudged(results: TestResults | null, live: readonly LiveEntry[], plan: PlanRecord | null) {
  const route = useMemo(() => (plan ? routeOf(plan) : null), [plan]);
  const view = results && liveView(results, plan?.plan.reserve);
  const ridden = useMemo(() => results && riddenOf(results, live), [results, live]);
  const planned = useMemo(() => {
    if (!route?.ok || !view || !results || !ridden) return null;
    const { forecast } = route.value;
    const against = againstPlan(forecast, view.distanceM, results.end.used);
    return {
      turn: liveTurn(forecast, view.distanceM, results.end.used),
      against,
      why: against.asPlanned ? "" : reasonsText(reasonsFor(forecast, ridden), against.more),
    };
  }, [route, view, results, ridden]);
  const guess =
    view && results
      ? againstGuess(live, (id) => placesOf(results).get(id), view.distanceM, view.toEnd)
      : null;
  const odd = oddReadings(live);
  const asked = new Set(odd.map(({ rootId }) => rootId));
  // Of entries only: a logger's own stretches are judged on the strip.
  const rootIds = new Set(live.map(({ rootId }) => rootId));
  const flags = (results?.flags ?? []).filter(({ rootId }) => rootIds.has(rootId) && !asked.has(rootId));
  return { view, planned, guess, odd, flags };
}
