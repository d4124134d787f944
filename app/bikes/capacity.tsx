import { fixed, halfWidth95 } from "#core/base";
import type { PackHistory } from "#core/analysis";

const WIDTH = 320;
const HEIGHT = 120;
const LEFT = 38;
const FOOT = 20;

/** A pack's capacity against its age: measurements with whiskers over the band its age lets expect. */
export function CapacityChart({ history }: { readonly history: PackHistory }) {
  const { points, expected } = history;
  const days = [...points.map(({ day }) => day), ...expected.map(({ day }) => day)].sort();
  if (points.length === 0 || days.length < 2) return null;
  const [from, to] = [Date.parse(days[0]!), Date.parse(days.at(-1)!)];
  const shares = points.map(({ share }) => ({ mean: share.mean, half: halfWidth95(share) }));
  const low = Math.floor(10 * Math.min(0.7, ...shares.map(({ mean, half }) => mean - half))) / 10;
  const high = Math.max(1.05, ...shares.map(({ mean, half }) => mean + half));
  const x = (day: string) =>
    LEFT + 8 + ((Date.parse(day) - from) / Math.max(1, to - from)) * (WIDTH - LEFT - 20);
  const y = (share: number) => 6 + ((high - share) / (high - low)) * (HEIGHT - FOOT - 6);
  const edge = (side: 1 | -1) =>
    expected.map(
      ({ day, share }) => `${x(day).toFixed(1)},${y(share.mean + side * halfWidth95(share)).toFixed(1)}`,
    );
  const ticks = [low, 0.8, 1].filter((tick, i, all) => all.indexOf(tick) === i && tick >= low);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="mt-2 w-full max-w-md"
      role="img"
      aria-label={`Capacity in percent of the label: ${points.map(({ day, share }) => `${fixed(100 * share.mean, 0)} % on ${day}`).join(", ")}`}
      fontSize={11}
      fill="currentColor"
    >
      {ticks.map((tick) => (
        <g key={tick}>
          <path d={`M${LEFT} ${y(tick)}H${WIDTH - 6}`} stroke="var(--color-rule)" />
          <text x={LEFT - 5} y={y(tick) + 4} textAnchor="end" fill="var(--color-quiet)">
            {fixed(tick * 100, 0)} %
          </text>
        </g>
      ))}
      <polygon
        points={[...edge(-1), ...edge(1).reverse()].join(" ")}
        fill="var(--color-ochre-fill)"
        fillOpacity={0.14}
      />
      <polyline
        points={expected
          .map(({ day, share }) => `${x(day).toFixed(1)},${y(share.mean).toFixed(1)}`)
          .join(" ")}
        fill="none"
        stroke="var(--color-ochre-fill)"
        strokeDasharray="4 3"
      />
      {points.map(({ day, from: source }, i) => {
        const { mean, half } = shares[i]!;
        return (
          <g key={`${day}/${i}`}>
            <path d={`M${x(day)} ${y(mean - half)}V${y(mean + half)}`} stroke="var(--color-ink)" />
            {source === "bench" ? (
              <rect x={x(day) - 4} y={y(mean) - 4} width={8} height={8} fill="var(--color-ink)" />
            ) : (
              <circle cx={x(day)} cy={y(mean)} r={4} fill="var(--color-spruce)" />
            )}
          </g>
        );
      })}
      <text x={LEFT + 8} y={HEIGHT - 4} fill="var(--color-quiet)">
        {days[0]!.slice(0, 7)}
      </text>
      <text x={WIDTH - 6} y={HEIGHT - 4} textAnchor="end" fill="var(--color-quiet)">
        {days.at(-1)!.slice(0, 7)}
      </text>
    </svg>
  );
}
