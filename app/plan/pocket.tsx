import type { PlanResults } from "#core/planning";
import { href, Link, useFetcher } from "react-router";
import { dbContext } from "#app/context";
import { durationText, formatBare, unitOf } from "#core/base";
import { CAUTIONS } from "#ui/cautions";
import { Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { useSentOnLeave } from "#app/ui/forms/useSentOnLeave";
import { Warnings } from "./outlook";
import { endRule, heldLines, readyLines, runNames } from "./readiness";
import { sheetAt } from "#app/services/planning.server";
import { barsText, goOnText, percentText, timeText, voltsText } from "./spans";
import type { Route } from "./+types/pocket";

export function loader({ params, context }: Route.LoaderArgs) {
  return sheetAt(context.get(dbContext), params.planId);
}

interface TickLineProps {
  readonly planId: string;
  readonly line: string;
  readonly done: boolean;
}

/** One line of a list, ticked with a thumb. */
function TickLine({ planId, line, done }: TickLineProps) {
  const fetcher = useFetcher();
  useSentOnLeave(fetcher);
  const sending = fetcher.formData ? fetcher.formData.get("done") === "on" : done;
  return (
    <li>
      <fetcher.Form method="post" action={href("/plan/:planId", { planId })}>
        <input type="hidden" name="intent" value="tick" />
        <input type="hidden" name="line" value={line} />
        {sending ? null : <input type="hidden" name="done" value="on" />}
        <button
          type="submit"
          aria-pressed={sending}
          className={`flex min-h-12 w-full items-center gap-3 border-b border-rule text-left ${sending ? "text-quiet" : ""}`}
        >
          <span
            aria-hidden
            className={`grid size-6 shrink-0 place-items-center border ${sending ? "border-spruce bg-spruce text-onspruce" : "border-ink"}`}
          >
            {sending ? "✓" : ""}
          </span>
          {line}
        </button>
      </fetcher.Form>
    </li>
  );
}

type PlannedCheckIn = PlanResults["checkIns"][number];

/** A check-in: what is expected there, and from what on one goes home. */
function CheckInCard({ checkIn }: { readonly checkIn: PlannedCheckIn }) {
  const system = useSystem();
  const unit = unitOf("distance", system);
  const { expected, what } = checkIn;
  const readings = [
    ["percent", percentText(expected)],
    ["bars", barsText(expected)],
    ["volts at rest", voltsText(expected)],
  ] as const;
  const goOn = goOnText(checkIn);
  return (
    <article className="sheet p-4">
      <h3 className="flex items-baseline justify-between gap-3">
        <span className="text-3xl font-bold">
          {formatBare(expected.atM, "distance", system)}
          <span className="text-base font-normal text-quiet"> {unit}</span>
        </span>
        <span className="text-right">{what}</span>
      </h3>
      <dl className="mt-2 grid grid-cols-[auto_1fr_auto] gap-x-3 gap-y-1">
        {readings.map(([name, text]) =>
          text ? (
            <div key={name} className="contents">
              <dt className="text-quiet">{name}</dt>
              <dd className="pencil text-xl font-bold">{text.expected}</dd>
              <dd className="pencil text-right">{text.span}</dd>
            </div>
          ) : null,
        )}
        <div className="contents">
          <dt className="text-quiet">after</dt>
          <dd className="pencil">{durationText(expected.timeS.mean)}</dd>
          <dd className="pencil text-right">{timeText(expected).span}</dd>
        </div>
      </dl>
      {goOn ? (
        <p className="mt-2 font-bold">
          {goOn === "go home here" ? "Go home from here." : `Go on above ${goOn}; else go home from here.`}
        </p>
      ) : null}
    </article>
  );
}

/** The run sheet for a phone in a pocket: lists to tick, then each check-in as a card. */
export default function Pocket({ loaderData: { line, record, results } }: Route.ComponentProps) {
  const system = useSystem();
  const say = useSpoken();
  const { plan } = record;
  const bench = plan.method.school === "bench";
  const done = new Set(plan.ticked);
  const list = (title: string, lines: readonly string[]) =>
    lines.length ? (
      <section>
        <h2>{title}</h2>
        <ul>
          {lines.map((each) => (
            <TickLine key={each} planId={line.id} line={each} done={done.has(each)} />
          ))}
        </ul>
      </section>
    ) : null;
  return (
    <Page
      title={plan.title}
      line={`Start ${plan.startsAt}, ${line.bikeName}, ${line.courseName ?? "a plain loop"}`}
      next={
        <Link to={href("/plan/:planId/sheet", { planId: line.id })} className="button">
          On paper
        </Link>
      }
    >
      <div className="mx-auto grid max-w-xl gap-6 p-4">
        {results.ok ? (
          <>
            {bench ? null : (
              <>
                <Warnings warnings={results.value.warnings} />
                <p className="text-lg font-bold">{say(results.value.turnRule)}</p>
              </>
            )}
            {list("Ready", readyLines(record, results.value, system))}
            {list("Held constant", heldLines(record, results.value, system))}
            {list("Bring", plan.method.bring)}
            {runNames(record).length ? (
              <section>
                <h2>Runs, in this order</h2>
                <ol className="list-inside list-decimal">
                  {runNames(record).map((run, i) => (
                    <li key={`${i} ${run}`}>{run}</li>
                  ))}
                </ol>
              </section>
            ) : null}
            <section className="grid gap-3">
              {bench ? null : <h2>Check-ins</h2>}
              {(bench ? [] : results.value.checkIns).map((checkIn) => (
                <CheckInCard key={checkIn.expected.atM} checkIn={checkIn} />
              ))}
            </section>
            <p>{endRule(record)}</p>
          </>
        ) : (
          <Warnings
            warnings={results.problems.map(({ code, sentence }) => ({ code, sentence, weight: "stop" }))}
          />
        )}
        <ul className="border-l-4 border-ochre-fill bg-sheet px-4 py-3 text-sm">
          {CAUTIONS.riding.map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
      </div>
    </Page>
  );
}
