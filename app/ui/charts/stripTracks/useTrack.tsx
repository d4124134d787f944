import { halfWidth95, toSi } from "#core/base";
import type { StripResults } from "#app/services/strip/view";
import { bandOf, type StripLayout } from "./layout";

interface TrackProps {
  readonly results: StripResults;
  readonly layout: StripLayout;
}

/** Energy per distance of each stretch, with whiskers. */
export function UseTrack({ results, layout, levels }: TrackProps & { readonly levels: readonly string[] }) {
  const { use, x, yOfUse, useUnit, useSteps, left, right } = layout;
  const foot = use.top + use.height;
  return (
    <g>
      <text x={0} y={use.top + 14} fontWeight={650}>
        Use
      </text>
      <text x={0} y={use.top + 31} fill="var(--color-quiet)">
        {useUnit}
      </text>
      {useSteps.map((step) => {
        const y = yOfUse(toSi(step, "energyPerDistance", useUnit)!);
        return (
          <g key={step}>
            <path d={`M${left} ${y}H${right}`} stroke="var(--color-rule)" />
            <text x={left - 8} y={y + 4} textAnchor="end" fill="var(--color-quiet)">
              {step}
            </text>
          </g>
        );
      })}
      {results.stretches.map(({ fromM, toM, level, whPerM }) => {
        const wide = Math.max(1, x(toM) - x(fromM) - 2);
        const middle = x(fromM) + 1 + wide / 2;
        const { share, throttle } = bandOf(level, levels);
        const [low, high] = [
          yOfUse(whPerM.mean - halfWidth95(whPerM)),
          yOfUse(whPerM.mean + halfWidth95(whPerM)),
        ];
        return (
          <g key={fromM}>
            <rect
              x={x(fromM) + 1}
              y={yOfUse(whPerM.mean)}
              width={wide}
              height={foot - yOfUse(whPerM.mean)}
              fill={throttle ? "url(#throttle)" : "var(--color-spruce)"}
              fillOpacity={throttle ? 1 : 0.25 + 0.6 * share}
            />
            {whPerM.mean > toSi(useSteps.at(-1)!, "energyPerDistance", useUnit)! ? (
              // Broken off: it goes beyond the scale.
              <path
                d={`M${x(fromM)} ${use.top + 9}l${wide + 2} -4`}
                stroke="var(--color-bone)"
                strokeWidth={2.5}
              />
            ) : null}
            {wide > 8 ? (
              <path
                d={`M${middle - 3} ${low}H${middle + 3}M${middle - 3} ${high}H${middle + 3}M${middle} ${low}V${high}`}
                stroke="var(--color-ink)"
                fill="none"
              />
            ) : null}
          </g>
        );
      })}
    </g>
  );
}

/** Speed and amps of a logger, each in half the track's height on a scale of its own. */
export function LoggedTrack({ results, layout, speedTop }: TrackProps & { readonly speedTop: string }) {
  const { series } = results;
  const { logged, x, left, right } = layout;
  if (!series || !logged) return null;
  const line = (values: readonly (number | null)[], most: number) =>
    values
      .flatMap((value, i) =>
        value === null
          ? []
          : [
              `${x(series.distanceM[i]!).toFixed(1)},${(logged.top + logged.height * (1 - Math.max(0, value) / most)).toFixed(1)}`,
            ],
      )
      .join(" ");
  const most = (values: readonly (number | null)[]) => Math.max(1, ...values.map((value) => value ?? 0));
  const amps = most(series.ampsHigh);
  return (
    <g>
      <text x={0} y={logged.top + 14} fontWeight={650}>
        Logged
      </text>
      <text x={0} y={logged.top + 31} fill="var(--color-slate)">
        {speedTop}
      </text>
      <text x={0} y={logged.top + 47} fill="var(--color-spruce)">
        0–{Math.ceil(amps)} A
      </text>
      <path d={`M${left} ${logged.top + logged.height}H${right}`} stroke="var(--color-rule)" />
      <polygon
        points={`${line(series.ampsHigh, amps)} ${line(series.ampsLow, amps).split(" ").reverse().join(" ")}`}
        fill="var(--color-spruce)"
        fillOpacity={0.22}
      />
      <polyline points={line(series.amps, amps)} fill="none" stroke="var(--color-spruce)" strokeWidth={1.2} />
      <polyline
        points={line(series.speedMps, most(series.speedMps))}
        fill="none"
        stroke="var(--color-slate)"
        strokeWidth={1.4}
        strokeDasharray="5 2"
      />
    </g>
  );
}
