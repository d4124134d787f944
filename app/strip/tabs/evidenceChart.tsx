import {
  CartesianGrid,
  ComposedChart,
  ErrorBar,
  ReferenceArea,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from "recharts";
import { AXIS, below, GRID, STILL } from "#app/ui/charts/axis";
import { stepsWithin } from "#app/ui/charts/scale";

/** One kind of evidence: its figure, and how far its span reaches to either side; without a span for a bare figure. */
export interface EvidenceDot {
  readonly name: string;
  readonly mean: number;
  readonly half: number | null;
  readonly colour: string;
  /** Shown because many use it, and never part of best. */
  readonly hollow: boolean;
}

interface EvidenceChartProps {
  /** The first is best. */
  readonly dots: readonly EvidenceDot[];
  readonly unit: string;
  /** Height of a row, and of the axis below. */
  readonly row: number;
  readonly foot: number;
}

/** Farthest a whisker is drawn from best, as a multiple of best. */
const FARTHEST = 1.2;
const [BEST_R, DOT_R] = [6.5, 5];

interface Drawn {
  readonly cx?: number;
  readonly cy?: number;
  readonly payload?: EvidenceDot & { readonly y: number };
}

function Dot({ cx = 0, cy = 0, payload }: Drawn) {
  return (
    <circle
      cx={cx}
      cy={cy}
      r={payload && payload.y < 1 ? BEST_R : DOT_R}
      fill={payload?.hollow ? "var(--color-bone)" : payload?.colour}
      stroke={payload?.colour}
      strokeWidth={1.6}
    />
  );
}

/** Dots with whiskers, one a row, over the span of best. */
export default function EvidenceChart({ dots, unit, row, foot }: EvidenceChartProps) {
  const best = dots[0]!;
  const ends = dots.flatMap(({ mean, half }) => [mean - (half ?? 0), mean + (half ?? 0)]);
  const low = Math.max(0, Math.min(...ends, best.mean * 0.9));
  const high = Math.min(best.mean * (1 + FARTHEST), Math.max(...ends, best.mean * 1.1));
  const inside = (value: number) => Math.min(high, Math.max(low, value));
  const placed = dots.map((dot, i) => {
    const mean = inside(dot.mean);
    const half = dot.half ?? 0;
    return {
      ...dot,
      mean,
      y: i + 0.5,
      reach: [mean - inside(dot.mean - half), inside(dot.mean + half) - mean],
    };
  });
  return (
    <ResponsiveContainer width="100%" height={row * dots.length + foot}>
      <ComposedChart
        data={placed}
        margin={{ top: 0, right: 16, bottom: 20, left: 16 }}
        accessibilityLayer={false}
      >
        <CartesianGrid horizontal={false} {...GRID} />
        <XAxis
          {...AXIS}
          type="number"
          dataKey="mean"
          height={foot - 20}
          domain={[low, high]}
          ticks={[...stepsWithin(low, high, 5)]}
          label={below(unit)}
        />
        <YAxis type="number" dataKey="y" domain={[0, dots.length]} reversed hide />
        <ReferenceArea
          x1={inside(best.mean - (best.half ?? 0))}
          x2={inside(best.mean + (best.half ?? 0))}
          fill="var(--color-spruce)"
          fillOpacity={0.12}
          stroke="none"
        />
        {placed.map((dot) => (
          <Scatter key={dot.name} {...STILL} data={[dot]} dataKey="y" shape={Dot}>
            {dot.half === null ? null : (
              <ErrorBar
                {...STILL}
                dataKey="reach"
                direction="x"
                width={dot.half < high - low ? 5 : 0}
                stroke={dot.colour}
                strokeWidth={1.6}
                {...(dot.hollow && { strokeDasharray: "4 3" })}
              />
            )}
          </Scatter>
        ))}
      </ComposedChart>
    </ResponsiveContainer>
  );
}
