import {
  CartesianGrid,
  ComposedChart,
  ErrorBar,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from "recharts";
import { AXIS, below, GRID, STILL } from "#app/ui/charts/axis";
import { halfWidth95 } from "#core/base";
import type { GaugeHistory } from "#core/analysis";

const QUARTERS = [0, 25, 50, 75, 100];
/** A span may reach a little beyond full and empty, %. */
const REACH = [-5, 105];

const HEIGHT = 270;

/** Energy left against the percent shown, by tenths of the gauge, with the line of a gauge that tells it straight. */
export default function GaugeCurve({ history }: { readonly history: GaugeHistory }) {
  const points = history.percents.map(({ shown, used }) => ({
    shown,
    left: 100 * (1 - used.mean),
    half: 100 * halfWidth95(used),
  }));
  return (
    <ResponsiveContainer width="100%" height={HEIGHT}>
      <ComposedChart
        data={points}
        margin={{ top: 8, right: 16, bottom: 24, left: 4 }}
        accessibilityLayer={false}
      >
        <CartesianGrid vertical={false} {...GRID} />
        <XAxis
          {...AXIS}
          type="number"
          dataKey="shown"
          domain={[0, 100]}
          ticks={QUARTERS}
          label={below("percent shown; upright, energy left")}
        />
        <YAxis
          {...AXIS}
          type="number"
          domain={REACH}
          ticks={QUARTERS}
          allowDataOverflow
          width={52}
          tickFormatter={(left: number) => `${left} %`}
        />
        <ReferenceLine
          segment={[
            { x: 0, y: 0 },
            { x: 100, y: 100 },
          ]}
          stroke="var(--color-quiet)"
          strokeDasharray="4 4"
        />
        <Line
          {...STILL}
          dataKey="left"
          stroke="var(--color-spruce)"
          strokeWidth={2}
          dot={false}
          activeDot={false}
        />
        <Scatter {...STILL} dataKey="left" fill="var(--color-spruce)">
          <ErrorBar {...STILL} dataKey="half" direction="y" width={0} stroke="var(--color-ink)" />
        </Scatter>
      </ComposedChart>
    </ResponsiveContainer>
  );
}
