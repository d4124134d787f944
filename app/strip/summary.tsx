import { Link } from "react-router";
import { durationText, formatBare, formatQuantity, formatUncertain, unitOf } from "#core/base";
import type { StripResults } from "#app/services/strip/view";
import { useSystem } from "#ui/system";

interface SummaryProps {
  readonly results: StripResults;
  /** Air at the day of the test, C, where it was typed. */
  readonly airTempC: number | undefined;
  readonly totals: string;
}

/** The ride in a line: distance, riding time, speeds, climb, heart rate, temperatures; what nobody noted is left out. */
export function Summary({ results, airTempC, totals }: SummaryProps) {
  const system = useSystem();
  const { distance, movingS, meanSpeedMps, topSpeedMps, climbM, noted } = results;
  const air = noted.airTempC ?? (airTempC === undefined ? null : { from: airTempC, to: airTempC });
  const speed = (mps: number | null) => mps !== null && formatQuantity(mps, "speed", system);
  const temperature = (c: number) => formatBare(c, "temperature", system);
  const items: readonly (readonly [string, string | false])[] = [
    ["Distance", formatUncertain(distance.value, "distance", system)],
    ["Riding time", movingS !== null && durationText(movingS)],
    ["Average", speed(meanSpeedMps)],
    ["Top", speed(topSpeedMps)],
    ["Climb", climbM !== null && formatQuantity(climbM, "climb", system)],
    ["Heart", noted.bpm !== null && `${Math.round(noted.bpm)} a minute`],
    [
      "Air",
      air !== null &&
        `${temperature(air.from)}${temperature(air.to) === temperature(air.from) ? "" : ` to ${temperature(air.to)}`} ${unitOf("temperature", system)}`,
    ],
  ];
  return (
    <section aria-label="Ride summary" className="mb-4 flex flex-wrap items-baseline gap-x-6 gap-y-2">
      <dl className="contents">
        {items.map(([name, value]) =>
          value === false ? null : (
            <div key={name}>
              <dt className="text-sm text-quiet">{name}</dt>
              <dd className="font-medium">{value}</dd>
            </div>
          ),
        )}
      </dl>
      <Link to={totals} className="entering ml-auto text-sm">
        {movingS === null ? "Type riding time, climb, heart rate" : "Ride totals"}
      </Link>
    </section>
  );
}
