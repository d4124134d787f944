import { createEvents, type DateArray, type EventAttributes } from "ics";
import { dbContext } from "#app/context";
import { systemOf } from "#app/ui/systemCookie";
import { renderUnits } from "#core/base";
import { endRule } from "./readiness";
import { sheetAt } from "#app/services/planning.server";
import type { Route } from "./+types/calendar";

/** A moment as the calendar package takes it, in UTC. */
function dateArray(ms: number): DateArray {
  const at = new Date(ms);
  return [at.getUTCFullYear(), at.getUTCMonth() + 1, at.getUTCDate(), at.getUTCHours(), at.getUTCMinutes()];
}

const utc = {
  startInputType: "utc",
  endInputType: "utc",
  startOutputType: "utc",
  endOutputType: "utc",
} as const;

/** The ride and the charge of the evening before as a calendar file. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const { line, record, results } = await sheetAt(context.get(dbContext), params.planId);
  if (!results.ok)
    return new Response(results.problems.map(({ sentence }) => sentence).join(" "), { status: 422 });
  const { plan } = record;
  const { startMs, endMs, charge, turnRule } = results.value;
  const ride: EventAttributes = {
    ...utc,
    uid: `${line.id}-ride@barometron`,
    productId: "barometron",
    title: `${plan.title}: ride`,
    start: dateArray(startMs),
    end: dateArray(endMs.mean),
    location: line.courseName ?? "",
    description: [renderUnits(turnRule, systemOf(request)), endRule(record)].join("\n"),
    alarms: [{ action: "display", description: plan.title, trigger: { hours: 1, before: true } }],
  };
  const charging: readonly EventAttributes[] = charge
    ? [
        {
          ...utc,
          uid: `${line.id}-charge@barometron`,
          productId: "barometron",
          title: `${plan.title}: charge ${record.pack.name}`,
          start: dateArray(charge.startMs),
          end: dateArray(charge.endMs),
          description: "Attended, with the matched charger, away from exits.",
          alarms: [
            { action: "display", description: "Start the charge", trigger: dateArray(charge.startMs) },
          ],
        },
      ]
    : [];
  const { error, value } = createEvents([...charging, ride]);
  if (error || !value)
    throw new Error(`the calendar cannot be written: ${error?.message ?? "no reason given"}`);
  return new Response(value, {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": 'attachment; filename="ride.ics"',
    },
  });
}
