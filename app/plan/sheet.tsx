import type { PlanRecord, PlanResults } from "#core/planning";
import type { System } from "#core/base";
import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { questionOf } from "#core/planning";
import { dayText, durationText, formatQuantity, unitOf } from "#core/base";
import { CAUTIONS } from "#ui/cautions";
import { Page } from "#ui/page";
import { PrintButton } from "#ui/printButton";
import { useSpoken, useSystem } from "#ui/system";
import { CheckInTable } from "./checkInTable";
import { Warnings } from "./outlook";
import { endRule, heldLines, readyLines, runNames } from "./readiness";
import { sheetAt } from "#app/services/planning.server";
import { distanceSpan } from "./spans";
import type { Route } from "./+types/sheet";

export function loader({ params, context }: Route.LoaderArgs) {
  return sheetAt(context.get(dbContext), params.planId);
}

function Boxes({ title, lines }: { readonly title: string; readonly lines: readonly string[] }) {
  if (lines.length === 0) return null;
  return (
    <section>
      <h2>{title}</h2>
      <ul>
        {lines.map((line) => (
          <li key={line} className="flex gap-2">
            <span aria-hidden className="mt-1 size-3 shrink-0 border border-ink" />
            {line}
          </li>
        ))}
      </ul>
    </section>
  );
}

const START_READINGS = [
  "Time",
  "Odometer",
  "Percent",
  "Bars",
  "Rest volts",
  "Air",
  "Wind",
  "Pack",
  "Rider, load",
];

/** What stands under the end of the sheet: charge, daylight, ends, places, weather. */
function factsOf(
  { plan }: PlanRecord,
  found: PlanResults,
  system: System,
  say: (sentence: string) => string,
): readonly string[] {
  const bench = plan.method.school === "bench";
  const unit = unitOf("distance", system);
  const { fullPowerEnds, charge, daylight } = found;
  return [
    charge
      ? `Charge from ${charge.startsAt} on ${dayText(charge.startsOn)}, attended, done by ${plan.chargedBy}.`
      : "",
    !bench && daylight?.sunset ? `Sunset ${daylight.sunset}; latest start ${daylight.latestStart}.` : "",
    !bench && fullPowerEnds
      ? `Full power ends about ${distanceSpan(fullPowerEnds, system).expected} ${unit} (${distanceSpan(fullPowerEnds, system).span}).`
      : "",
    bench || found.emptyFromHomeM === null
      ? ""
      : `Where the pack ends, home is at most ${formatQuantity(found.emptyFromHomeM, "distance", system)} away.`,
    ...(bench ? [] : found.bailOuts)
      .slice(0, 4)
      .map(
        ({ name, kind, atM, beyond, pedalAfterM }) =>
          `${name} at ${formatQuantity(atM, "distance", system)}: ${kind}${beyond ? "; may be out of reach" : ""}${pedalAfterM === null ? "" : `; out of the pack's reach from ${formatQuantity(pedalAfterM, "distance", system)}`}.`,
      ),
    bench || found.turn.pedalAfterM === null
      ? ""
      : `Pedal home from ${formatQuantity(found.turn.pedalAfterM, "distance", system)} on: the motor may not last.`,
    ...found.weather.map(say),
  ].filter(Boolean);
}

/** The run sheet on one printed page: all that the ride needs, and room to write. */
export default function RunSheet({ loaderData: { line, record, results } }: Route.ComponentProps) {
  const system = useSystem();
  const say = useSpoken();
  const { plan } = record;
  const back = (
    <div className="flex gap-3 print:hidden">
      <Link to={href("/plan/:planId", { planId: line.id })} className="button">
        Change the plan
      </Link>
      <PrintButton />
    </div>
  );
  if (!results.ok)
    return (
      <Page title={plan.title} line="Run sheet" next={back}>
        <div className="p-4 md:p-6">
          <Warnings
            warnings={results.problems.map(({ code, sentence }) => ({ code, sentence, weight: "stop" }))}
          />
        </div>
      </Page>
    );
  const found = results.value;
  const runs = runNames(record);
  const bench = plan.method.school === "bench";
  const facts = factsOf(record, found, system, say);
  return (
    <Page
      title={plan.title}
      line={`${questionOf(plan.question).asks} ${plan.method.name}. ${line.bikeName}${line.setUpName ? `, ${line.setUpName}` : ""}, ${record.pack.name}${line.riderName ? `, ${line.riderName}` : ""}. ${bench ? "" : `${line.courseName ?? "A plain loop"}, ${formatQuantity(found.endM, "distance", system)}, ${formatQuantity(found.gainM, "climb", system)} climb, about ${durationText(found.end.timeS.mean)}. `}${dayText(plan.day)}, start ${plan.startsAt}.`}
      what="run sheet"
      next={back}
    >
      <div className="run-sheet grid grid-cols-[minmax(0,1fr)] gap-4 p-4 md:p-6">
        <Warnings warnings={bench ? [] : found.warnings} />
        <div className="grid gap-4 sm:grid-cols-3 print:grid-cols-3">
          <Boxes title="Ready" lines={readyLines(record, found, system)} />
          <Boxes title="Held constant" lines={heldLines(record, found, system)} />
          <Boxes title="Bring" lines={plan.method.bring} />
        </div>
        <section>
          <h2>At the start</h2>
          <dl className="grid grid-cols-3 gap-x-4 sm:grid-cols-5 print:grid-cols-5">
            {START_READINGS.map((name) => (
              <div key={name} className="flex items-end gap-1 pt-3">
                <dt className="text-quiet">{name}</dt>
                <dd className="flex-1 border-b border-ink" />
              </div>
            ))}
          </dl>
        </section>
        {bench ? null : (
          <section>
            <h2>On the way</h2>
            <p className="font-bold">{say(found.turnRule)}</p>
            {runs.length ? <p>Runs in this order: {runs.join(", ")}.</p> : null}
            <CheckInTable checkIns={found.checkIns} toWrite />
          </section>
        )}
        <section>
          <h2>The end</h2>
          <p>{endRule(record)}</p>
          <ul className="mt-1 grid gap-x-6 sm:grid-cols-2 print:grid-cols-2">
            {facts.map((fact) => (
              <li key={fact}>{fact}</li>
            ))}
          </ul>
        </section>
        <section>
          <h2>Cautions</h2>
          <p className="text-sm">
            {CAUTIONS.riding.join(" ")} {CAUTIONS.pack.slice(1, 3).join(" ")}
          </p>
        </section>
      </div>
    </Page>
  );
}
