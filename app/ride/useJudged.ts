import { useMemo } from "react";
import {
  againstGuess,
  arrivalOf,
  againstPlan,
  liveTurn,
  liveView,
  oddReadings,
  paceOf,
  readTurnRule,
  reasonsFor,
  reasonsText,
  watchTurnRule,
} from "#core/live";
import type { LiveEntry } from "#core/ride/log";
import { routeOf, type PlanRecord } from "#core/planning";
import type { TestResults } from "#core/analysis";
import { placesOf, riddenOf, turnRuleIn, turnSeenIn } from "./state";

/** What a ride so far comes to: what is left, how it goes against plan and display, and what wants an answer. */
export function useJudged(results: TestResults | null, live: readonly LiveEntry[], plan: PlanRecord | null) {
  const route = useMemo(() => (plan ? routeOf(plan) : null), [plan]);
  const view = results && liveView(results, plan?.plan.reserve, route?.ok ? route.value.forecast : null);
  const ridden = useMemo(() => results && riddenOf(results, live), [results, live]);
  // Of the last entry itself: one typed up later has no time, and says nothing of when one is there.
  const lastS = live.filter(({ struck }) => !struck).at(-1)?.timeS ?? null;
  const planned = useMemo(() => {
    if (!route?.ok || !view || !results || !ridden) return null;
    const { forecast } = route.value;
    const against = againstPlan(forecast, view.distanceM, results.end.used);
    return {
      turn: liveTurn(forecast, view.distanceM, results.end.used, paceOf(forecast, results.soFar)),
      against,
      arrival: lastS === null ? null : arrivalOf(plan!, forecast, view.distanceM, lastS * 1000),
      why: against.asPlanned ? "" : reasonsText(reasonsFor(forecast, ridden), against.more),
    };
  }, [route, view, results, ridden, plan, lastS]);
  const ruleText = turnRuleIn(live);
  const rule = readTurnRule(ruleText);
  const watched = rule && watchTurnRule(rule, turnSeenIn(live));
  const guess =
    view && results
      ? againstGuess(live, (id) => placesOf(results).get(id), view.distanceM, view.toEnd)
      : null;
  const odd = oddReadings(live);
  const asked = new Set(odd.map(({ rootId }) => rootId));
  // Of entries only: a logger's own stretches are judged on the strip.
  const rootIds = new Set(live.map(({ rootId }) => rootId));
  const flags = (results?.flags ?? []).filter(({ rootId }) => rootIds.has(rootId) && !asked.has(rootId));
  return { view, planned, guess, odd, flags, ruleText, watched };
}
