import { href, Link } from "react-router";
import { err, type Result } from "#core/base";
import type { PlanRecord, PlanResults, yieldOf } from "#core/planning";
import { Cautions } from "#ui/cautions";
import { CheckInTable } from "./checkInTable";
import { ForecastChart } from "./forecastChart";
import { LearningLines, SpreadLine } from "./learning";
import { Headline, PlanFacts, Warnings } from "./outlook";
import { YieldPanel } from "./yieldPanel";
import type { PlanLine } from "./start.server";

interface PlanOutcomeProps {
  readonly line: PlanLine;
  readonly course: PlanRecord["course"];
  readonly results: Result<PlanResults>;
  readonly yielded: ReturnType<typeof yieldOf>;
}

/** What a plan comes to: the forecast with its check-ins, or what stands in its way; and what the test will tell. */
export function PlanOutcome({ line, course, results, yielded }: PlanOutcomeProps) {
  const { plan } = line;
  const good = results.ok ? results.value : null;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-6">
      {plan.method.school === "bench" ? (
        <section className="sheet p-4">
          <p>
            A bench discharge rides nowhere: charge until the charger is green, let the pack come to the room,
            then some hours on a tester made for it, attended.
          </p>
          <p className="mt-3">
            <Link
              to={href("/bikes/:bikeId/packs/:packId/bench/:benchId", {
                bikeId: line.bikeId,
                packId: line.packId,
                benchId: "new",
              })}
              className="button"
            >
              Record the bench test
            </Link>
          </p>
        </section>
      ) : good ? (
        <>
          <Headline results={good} plan={plan} />
          <Warnings warnings={good.warnings} />
          <section className="sheet p-4">
            <ForecastChart results={good} course={course} />
            <p className="mt-1 text-sm text-quiet">
              Charge left, expected, and where it lies on 95 of 100 such days (the band). {good.restsOn}
            </p>
            <SpreadLine results={good} />
            <LearningLines results={good} />
          </section>
          <section>
            <h2 className="mb-2">Check-ins</h2>
            <CheckInTable checkIns={good.checkIns} />
          </section>
          <PlanFacts results={good} />
        </>
      ) : (
        <Warnings
          warnings={(results.ok ? [] : results.problems).map(({ code, sentence }) => ({
            code,
            sentence,
            weight: "stop",
          }))}
        />
      )}
      <YieldPanel yielded={results.ok ? yielded : err("none", "", "Mend the plan first.")} />
      <Cautions of={plan.method.school === "bench" ? "pack" : "riding"} />
    </div>
  );
}
