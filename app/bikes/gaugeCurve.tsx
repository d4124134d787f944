import { fixed, halfWidth95 } from "#core/base";
import type { GaugeHistory } from "#core/analysis";

const WIDTH = 420;
const HEIGHT = 250;
const LEFT = 48;
const FOOT = 34;
const TICKS = [0, 25, 50, 75, 100];

/** Energy left against the percent shown, by tenths of the gauge, with the line of a gauge that tells it straight. */
export function GaugeCurve({ history }: { readonly history: GaugeHistory }) {
  const x = (shown: number) => LEFT + (shown / 100) * (WIDTH - LEFT - 14);
  const y = (left: number) => 8 + (1 - Math.min(1.05, Math.max(-0.05, left))) * (HEIGHT - FOOT - 8);
  const points = history.percents.map(({ shown, used }) => ({
    shown,
    left: 1 - used.mean,
    half: halfWidth95(used),
  }));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full max-w-lg"
      role="img"
      aria-label={`Energy left by the percent shown: ${points.map(({ shown, left }) => `${shown} % shown, ${fixed(100 * left, 0)} % left`).join("; ")}`}
      fontSize={12}
      fill="currentColor"
    >
      {TICKS.map((tick) => (
        <g key={tick}>
          <path d={`M${LEFT} ${y(tick / 100)}H${WIDTH - 14}`} stroke="var(--color-rule)" />
          <text x={LEFT - 6} y={y(tick / 100) + 4} textAnchor="end" fill="var(--color-quiet)">
            {tick} %
          </text>
          <text x={x(tick)} y={HEIGHT - FOOT + 18} textAnchor="middle" fill="var(--color-quiet)">
            {tick}
          </text>
        </g>
      ))}
      <path
        d={`M${x(0)} ${y(0)}L${x(100)} ${y(1)}`}
        stroke="var(--color-quiet)"
        strokeDasharray="4 4"
        fill="none"
      />
      <polyline
        points={points.map(({ shown, left }) => `${x(shown).toFixed(1)},${y(left).toFixed(1)}`).join(" ")}
        fill="none"
        stroke="var(--color-spruce)"
        strokeWidth={2}
      />
      {points.map(({ shown, left, half }) => (
        <g key={shown}>
          <path d={`M${x(shown)} ${y(left - half)}V${y(left + half)}`} stroke="var(--color-ink)" />
          <circle cx={x(shown)} cy={y(left)} r={4} fill="var(--color-spruce)" />
        </g>
      ))}
      <text x={(LEFT + WIDTH) / 2} y={HEIGHT - 2} textAnchor="middle" fill="var(--color-quiet)">
        percent shown; upright, energy left
      </text>
    </svg>
  );
}
