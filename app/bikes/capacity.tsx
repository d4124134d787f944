import {
  Area,
  CartesianGrid,
  ComposedChart,
  ErrorBar,
  Line,
  ResponsiveContainer,
  Scatter,
  XAxis,
  YAxis,
} from "recharts";
import { AXIS, GRID, STILL } from "#app/ui/charts/axis";
import { fixed, halfWidth95 } from "#core/base";
import type { PackHistory } from "#core/analysis";

const HEIGHT = 160;

interface DotProps {
  readonly cx?: number;
  readonly cy?: number;
  readonly payload?: { readonly bench: boolean };
}

/** A bench discharge is a square, a ride that told the capacity a round. */
function Dot({ cx = 0, cy = 0, payload }: DotProps) {
  return payload?.bench ? (
    <rect x={cx - 4} y={cy - 4} width={8} height={8} fill="var(--color-ink)" />
  ) : (
    <circle cx={cx} cy={cy} r={4} fill="var(--color-spruce)" />
  );
}

const at = (day: string) => Date.parse(day);
const monthOf = (ms: number) => new Date(ms).toISOString().slice(0, 7);
const percent = (share: number) => 100 * share;

/** A pack's capacity against its age: measurements with whiskers over the band its age lets expect. */
export default function CapacityChart({ history }: { readonly history: PackHistory }) {
  const measured = history.points.map(({ day, share, from }) => ({
    at: at(day),
    share: percent(share.mean),
    half: percent(halfWidth95(share)),
    bench: from === "bench",
  }));
  const expected = history.expected.map(({ day, share }) => ({
    at: at(day),
    share: percent(share.mean),
    band: [-1, 1].map((side) => percent(share.mean + side * halfWidth95(share))),
  }));
  const days = [...measured, ...expected].map((point) => point.at);
  const [from, to] = [Math.min(...days), Math.max(...days)];
  const low = 10 * Math.floor(Math.min(70, ...measured.map(({ share, half }) => share - half)) / 10);
  const high = Math.max(105, ...measured.map(({ share, half }) => share + half));
  return (
    <ResponsiveContainer width="100%" height={HEIGHT}>
      <ComposedChart margin={{ top: 6, right: 28, bottom: 0, left: 4 }} accessibilityLayer={false}>
        <CartesianGrid vertical={false} {...GRID} />
        <XAxis
          {...AXIS}
          type="number"
          dataKey="at"
          domain={[from, to]}
          ticks={[from, to]}
          tickFormatter={monthOf}
          allowDuplicatedCategory={false}
          interval={0}
        />
        <YAxis
          {...AXIS}
          type="number"
          domain={[low, high]}
          ticks={[...new Set([low, 80, 100])]}
          width={52}
          tickFormatter={(share: number) => `${fixed(share, 0)} %`}
        />
        <Area
          {...STILL}
          data={expected}
          dataKey="band"
          stroke="none"
          fill="var(--color-ochre-fill)"
          fillOpacity={0.14}
          activeDot={false}
        />
        <Line
          {...STILL}
          data={expected}
          dataKey="share"
          stroke="var(--color-ochre-fill)"
          strokeDasharray="4 3"
          dot={false}
          activeDot={false}
        />
        <Scatter {...STILL} data={measured} dataKey="share" shape={Dot}>
          <ErrorBar {...STILL} dataKey="half" direction="y" width={0} stroke="var(--color-ink)" />
        </Scatter>
      </ComposedChart>
    </ResponsiveContainer>
  );
}
