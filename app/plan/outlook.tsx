import type { Plan, PlanResults, Warning } from "#core/planning";
import { dayText, durationText, fixed, formatQuantity, unitOf } from "#core/base";
import { Figure } from "#ui/figure";
import { useAnnounced } from "#ui/announce";
import { useSpoken, useSystem } from "#ui/system";
import { distanceSpan, timeText } from "./spans";

/** The one strong figure of a plan: the chance of home with the reserve, or where the pack is expected to end. */
export function Headline({ results, plan }: { readonly results: PlanResults; readonly plan: Plan }) {
  const system = useSystem();
  const say = useSpoken();
  const { chanceHome, emptyAt, end, endM, turnRule } = results;
  const unit = unitOf("distance", system);
  useAnnounced(
    chanceHome === null
      ? null
      : `${chanceText(chanceHome)} chance of home after ${formatQuantity(endM, "distance", system)}.`,
  );
  const empties = plan.method.until === "the pack is empty" && emptyAt;
  return (
    <section>
      {empties ? (
        <p>
          <span className="text-5xl leading-none font-bold">{distanceSpan(emptyAt, system).expected}</span>{" "}
          <span className="text-quiet">{unit} until the pack ends,</span> {distanceSpan(emptyAt, system).span}{" "}
          {unit}
        </p>
      ) : chanceHome !== null ? (
        <p>
          <span className="text-5xl leading-none font-bold">{chanceText(chanceHome)}</span>{" "}
          <span className="text-quiet">
            chance of home with {fixed(100 * plan.reserve, 0)} % left, after{" "}
            {formatQuantity(endM, "distance", system)}
          </span>
        </p>
      ) : (
        <p>
          <span className="text-5xl leading-none font-bold">{formatQuantity(endM, "distance", system)}</span>{" "}
          <span className="text-quiet">one way</span>
        </p>
      )}
      <p className="mt-2">
        {empties ? (
          "All of "
        ) : (
          <>
            About <Figure value={end.energyWh} dimension="energy" pencil /> of{" "}
          </>
        )}
        <Figure value={results.capacity} dimension="energy" />, {durationText(end.timeS.mean)} (
        {timeText(end).span}).
      </p>
      <p className="mt-1 font-bold">{say(turnRule)}</p>
    </section>
  );
}

function chanceText(chance: number): string {
  if (chance > 0.99) return "over 99 %";
  if (chance < 0.01) return "under 1 %";
  return `${fixed(100 * chance, 0)} %`;
}

/** What stands against the plan, gravest first. */
export function Warnings({ warnings }: { readonly warnings: readonly Warning[] }) {
  const say = useSpoken();
  const sorted = [...warnings].sort((a, b) => Number(b.weight === "stop") - Number(a.weight === "stop"));
  return sorted.map(({ code, weight, sentence }) => (
    <p
      key={code}
      role={weight === "stop" ? "alert" : undefined}
      className={`border-l-4 bg-sheet px-4 py-3 ${weight === "stop" ? "border-rust" : "border-ochre-fill"}`}
    >
      {say(sentence)}
    </p>
  ));
}

function Row({ name, children }: { readonly name: string; readonly children: React.ReactNode }) {
  return (
    <div className="flex justify-between gap-4 border-b border-rule py-1.5">
      <dt className="text-quiet">{name}</dt>
      <dd className="text-right">{children}</dd>
    </div>
  );
}

/** Daylight, the charge, the weather, and what was assumed. */
function DayAndCharge({ results }: { readonly results: PlanResults }) {
  const system = useSystem();
  const say = useSpoken();
  const { daylight, charge, weather, taken } = results;
  return (
    <section>
      <h2 className="mb-1">Day and charge</h2>
      <dl>
        {daylight ? (
          <>
            <Row name="Sun">
              {daylight.sunrise ?? "does not rise"} to {daylight.sunset ?? "does not set"}
            </Row>
            <Row name="Latest start for daylight">{daylight.latestStart ?? "any time"}</Row>
          </>
        ) : (
          <Row name="Daylight">type the course&apos;s latitude and longitude</Row>
        )}
        {charge ? (
          <Row name="Start the charge">
            {charge.startsAt}, {dayText(charge.startsOn)}
            <div className="text-sm text-quiet">
              {formatQuantity(charge.minutes * 60, "duration", system)}, attended
            </div>
          </Row>
        ) : null}
      </dl>
      {weather.map((sentence) => (
        <p key={sentence} className="mt-2 text-sm">
          {say(sentence)}
        </p>
      ))}
      <details className="mt-3">
        <summary>What the forecast took</summary>
        <dl className="mt-1 text-sm">
          {taken.map(({ what, value, pencil, learned }) => (
            <Row key={what} name={what}>
              <span className={pencil ? "pencil" : ""}>{say(value)}</span>
              {learned ? <span className="text-quiet"> as its tests have it</span> : null}
            </Row>
          ))}
        </dl>
      </details>
    </section>
  );
}

/** Ends, places, daylight, charge, weather, and what was assumed. */
export function PlanFacts({ results }: { readonly results: PlanResults }) {
  const system = useSystem();
  const unit = unitOf("distance", system);
  const { fullPowerEnds, emptyAt, bailOuts, turn, barsLost } = results;
  const spanned = (at: { mean: number; sd: number } | null) => {
    if (!at) return "beyond the way";
    const { expected, span } = distanceSpan(at, system);
    return (
      <span className="pencil">
        {expected} {unit} <span className="text-sm">({span})</span>
      </span>
    );
  };
  return (
    <div className="grid gap-6 md:grid-cols-2">
      <section>
        <h2 className="mb-1">How far it goes</h2>
        <dl>
          <Row name="Full power ends">{spanned(fullPowerEnds)}</Row>
          <Row name="The pack ends">{spanned(emptyAt)}</Row>
          {turn.pedalAfterM === null ? null : (
            <Row name="Pedal home from">{formatQuantity(turn.pedalAfterM, "distance", system)} on</Row>
          )}
          {results.emptyFromHomeM === null ? null : (
            <Row name="Then home is at most">
              {formatQuantity(results.emptyFromHomeM, "distance", system)} away
            </Row>
          )}
          {barsLost.map(({ bar, atM }) => (
            <Row key={bar} name={`Bar ${bar} goes`}>
              {spanned(atM)}
            </Row>
          ))}
          {bailOuts.map(({ name, kind, atM, beyond, pedalAfterM }) => (
            <Row key={`${name} ${atM}`} name={`${name}, ${formatQuantity(atM, "distance", system)}`}>
              {kind}
              {beyond ? "; may be out of reach" : ""}
              {pedalAfterM === null
                ? ""
                : `; pedal back to it from ${formatQuantity(pedalAfterM, "distance", system)}`}
            </Row>
          ))}
        </dl>
      </section>
      <DayAndCharge results={results} />
    </div>
  );
}
