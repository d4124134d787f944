import { formatQuantity, type System } from "#core/base";
import type { StripResults } from "#app/services/strip/view";
import { GroundBand } from "#ui/charts/groundBand";
import { bandOf, type StripLayout } from "./layout";

/** Legs in a row that share a level or a ground, as one span of marks. */
function runsOf(legs: StripResults["legs"], key: "level" | "ground") {
  const runs: { name: string; from: number; to: number }[] = [];
  for (const leg of legs) {
    const run = runs.at(-1);
    if (run?.name === leg[key]) run.to = leg.to;
    else runs.push({ name: leg[key], from: leg.from, to: leg.to });
  }
  return runs;
}

interface TrackProps {
  readonly results: StripResults;
  readonly layout: StripLayout;
}

/** The height of the way, as a filled line. */
export function ProfileTrack({ results, layout }: TrackProps) {
  const { profile } = results;
  const band = layout.profile;
  if (!profile || !band) return null;
  const [low, high] = [Math.min(...profile.heightM), Math.max(...profile.heightM)];
  const y = (height: number) =>
    band.top + band.height - ((height - low) / Math.max(10, high - low)) * (band.height - 4);
  const line = profile.distanceM.map(
    (metres, i) => `${layout.x(metres).toFixed(1)},${y(profile.heightM[i]!).toFixed(1)}`,
  );
  const [from, to] = [layout.x(profile.distanceM[0]!), layout.x(profile.distanceM.at(-1)!)];
  const foot = band.top + band.height;
  return (
    <g>
      <polygon points={`${from},${foot} ${line.join(" ")} ${to},${foot}`} fill="var(--color-land)" />
      <polyline points={line.join(" ")} fill="none" stroke="var(--color-quiet)" strokeWidth={1.2} />
    </g>
  );
}

/** Ground in its hatches and letters. */
export function GroundTrack({ results, layout, system }: TrackProps & { readonly system: System }) {
  const { legs, marks } = results;
  const { ground, x } = layout;
  return (
    <g>
      <text x={0} y={ground.top + 14} fontWeight={650}>
        Ground
      </text>
      {results.climbM === null || !results.profile ? null : (
        <text x={0} y={ground.top - 5} fill="var(--color-quiet)">
          +{formatQuantity(results.climbM, "climb", system)}
        </text>
      )}
      <GroundBand
        runs={runsOf(legs, "ground").map(({ name, from, to }) => ({
          from: x(marks[from]!.distanceM),
          to: x(marks[to]!.distanceM),
          ground: name,
        }))}
        top={ground.top}
        height={ground.height}
      />
    </g>
  );
}

/** Levels as bands of their height; throttle hatched. */
export function LevelTrack({ results, layout, levels }: TrackProps & { readonly levels: readonly string[] }) {
  const { legs, marks } = results;
  const { level, x } = layout;
  return (
    <g>
      <text x={0} y={level.top + 18} fontWeight={650}>
        Level
      </text>
      {runsOf(legs, "level").map(({ name, from, to }) => {
        const [left, right] = [x(marks[from]!.distanceM), x(marks[to]!.distanceM)];
        const { share, throttle } = bandOf(name, levels);
        return (
          <g key={from}>
            <rect
              x={left}
              y={level.top + level.height * (1 - share)}
              width={Math.max(0, right - left)}
              height={level.height * share}
              fill={throttle ? "url(#throttle)" : "var(--color-spruce)"}
              fillOpacity={throttle ? 1 : 0.35 + 0.65 * share}
            />
            {right - left > 34 ? (
              <text x={left + 4} y={level.top + level.height + 12} fontSize={12} fill="var(--color-quiet)">
                {name}
              </text>
            ) : null}
          </g>
        );
      })}
    </g>
  );
}

/** Miles or kilometres along the foot, with a tick on the rule for every note. */
export function DistanceAxis({
  results,
  layout,
  system,
  toMetres,
}: TrackProps & { readonly system: System; readonly toMetres: (value: number) => number }) {
  const { axis, left, right, x, distanceSteps } = layout;
  return (
    <g>
      <path d={`M${left} ${axis}H${right}`} stroke="var(--color-ink)" />
      {distanceSteps.map((step) => (
        <g key={step}>
          <path d={`M${x(toMetres(step))} ${axis}v6`} stroke="var(--color-ink)" />
          <text x={x(toMetres(step))} y={axis + 20} textAnchor="middle">
            {step}
          </text>
        </g>
      ))}
      <text x={0} y={axis + 20} fontWeight={650}>
        {system === "imperial" ? "Miles" : "Kilometres"}
      </text>
      {results.marks.map(({ distanceM, notes }, i) =>
        notes.length ? (
          <path key={i} d={`M${x(distanceM)} ${axis}v-8`} stroke="var(--color-ink)" strokeWidth={2}>
            <title>{notes.join("; ")}</title>
          </path>
        ) : null,
      )}
    </g>
  );
}
