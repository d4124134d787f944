import { AXIS, GRID, STILL } from "#app/ui/charts/axis";
import { stepsCovering } from "#app/ui/charts/scale";
import { CartesianGrid, ComposedChart, ErrorBar, ResponsiveContainer, Scatter, XAxis, YAxis } from "recharts";

export interface ChartRow {
  readonly id: string;
  readonly best: number;
  /** How far its span reaches below and above it. */
  readonly error: readonly [below: number, above: number];
  readonly plain: number | null;
  readonly hollow: boolean;
}

interface ChartProps {
  readonly rows: readonly ChartRow[];
  readonly head: number;
  readonly row: number;
}

interface Spot {
  readonly cx?: number;
  readonly cy?: number;
  readonly payload?: ChartRow;
}

function BestDot({ cx = 0, cy = 0, payload }: Spot) {
  return (
    <circle
      cx={cx}
      cy={cy}
      r={6}
      fill={payload?.hollow ? "var(--color-bone)" : "var(--color-spruce)"}
      stroke="var(--color-spruce)"
      strokeWidth={2}
    />
  );
}

function PlainStroke({ cx = 0, cy = 0 }: Spot) {
  return <path d={`M${cx} ${cy - 8}V${cy + 8}`} stroke="var(--color-slate)" strokeWidth={2} />;
}

/** The farthest that anything of the rows reaches; a whisker longer than its figure is drawn no farther than twice it. */
const farthest = (rows: readonly ChartRow[]) =>
  Math.max(...rows.map(({ best, error, plain }) => Math.max(best + Math.min(error[1], best), plain ?? 0)));

/** Dots with whiskers, one a row, aligned with the rows of words beside them. */
export default function StandingsChart({ rows, head, row }: ChartProps) {
  const ticks = stepsCovering(farthest(rows), 4);
  const placed = rows.map((each, i) => ({ ...each, y: i + 0.5 }));
  return (
    <ResponsiveContainer width="100%" height={head + row * rows.length}>
      <ComposedChart
        data={placed}
        margin={{ top: 0, right: 16, bottom: 0, left: 16 }}
        accessibilityLayer={false}
      >
        <CartesianGrid horizontal={false} {...GRID} />
        <XAxis
          type="number"
          dataKey="best"
          orientation="top"
          height={head}
          domain={[0, ticks.at(-1)!]}
          ticks={[...ticks]}
          {...AXIS}
        />
        <YAxis type="number" dataKey="y" domain={[0, rows.length]} reversed hide />
        <Scatter data={placed} dataKey="y" shape={BestDot} {...STILL}>
          <ErrorBar
            {...STILL}
            dataKey="error"
            direction="x"
            width={0}
            stroke="var(--color-spruce)"
            strokeWidth={2}
          />
        </Scatter>
        <Scatter
          data={placed.filter(({ plain }) => plain !== null).map((each) => ({ ...each, best: each.plain }))}
          dataKey="y"
          shape={PlainStroke}
          {...STILL}
        />
      </ComposedChart>
    </ResponsiveContainer>
  );
}
