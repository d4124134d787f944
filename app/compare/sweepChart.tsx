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
import { AXIS, below, GRID, STILL } from "#app/ui/charts/axis";
import { stepsCovering } from "#app/ui/charts/scale";
import type { SweepCurve, SweepSpot } from "#core/compare";
import { fromSi, Z_95, unitOf } from "#core/base";
import { useSystem } from "#ui/system";

interface SweepChartProps {
  readonly curves: readonly SweepCurve[];
  readonly spots: readonly SweepSpot[];
  readonly outliers: ReadonlySet<number>;
}

/** Each ground's line by its dash, each drive's by its weight: told apart without colour. */
const DASHES: Readonly<Record<string, string>> = {
  asphalt: "0",
  brick: "10 4",
  "fine gravel": "4 4",
  "loose gravel": "2 3",
  grass: "12 3 2 3",
  mud: "6 2 2 2",
  snow: "1 5",
};
const HEIGHT = 340;

interface DotProps {
  readonly cx?: number;
  readonly cy?: number;
  readonly payload?: { readonly oneWay: boolean; readonly off: boolean };
}

/** A square of the sweep: filled when ridden both ways, hollow one way, crossed when it stands off. */
function Dot({ cx = 0, cy = 0, payload }: DotProps) {
  return (
    <g>
      <circle
        cx={cx}
        cy={cy}
        r={5}
        fill={payload?.oneWay ? "var(--color-sheet)" : "var(--color-spruce)"}
        stroke={payload?.off ? "var(--color-rust)" : "var(--color-spruce)"}
        strokeWidth={2}
      />
      {payload?.off ? (
        <path d={`M${cx - 9} ${cy - 9}L${cx + 9} ${cy + 9}`} stroke="var(--color-rust)" strokeWidth={1.5} />
      ) : null}
    </g>
  );
}

/** Which line is which. */
function Legend({ curves }: { readonly curves: SweepChartProps["curves"] }) {
  return (
    <ul className="flex flex-wrap gap-x-5 px-2 text-sm">
      {curves.map(({ ground, drive }) => (
        <li key={`${ground}/${drive}`} className="flex items-center gap-2">
          <svg width="36" height="8">
            <path
              d="M0 4H36"
              stroke="var(--color-spruce)"
              strokeWidth={drive === "throttle" ? 2.5 : 1.5}
              strokeDasharray={DASHES[ground]}
            />
          </svg>
          {ground}, {drive}
        </li>
      ))}
      <li className="text-quiet">Hollow: one way only. Crossed: stands off.</li>
    </ul>
  );
}

interface Scales {
  readonly speed: (mps: number) => number;
  readonly energy: (whPerM: number) => number;
  readonly top: number;
  readonly farthest: number;
}

/** A fitted curve and its band, inside the chart. */
function layersOf(
  { ground, drive, speedMps, whPerM }: SweepChartProps["curves"][number],
  { speed, energy, top, farthest }: Scales,
) {
  const data = speedMps.map((mps, i) => {
    const { mean, sd } = whPerM[i]!;
    return {
      speed: speed(mps),
      mean: energy(mean),
      band: [energy(mean - Z_95 * sd), energy(mean + Z_95 * sd)],
    };
  });
  const inside = data.filter(({ mean, speed: at }) => mean <= top && at <= farthest);
  const name = `${ground}${drive === "throttle" ? ", throttle" : ", pedal"}`;
  return [
    <Area
      key={`${name}/band`}
      data={inside}
      dataKey="band"
      stroke="none"
      fill="var(--color-spruce)"
      fillOpacity={0.1}
      {...STILL}
      activeDot={false}
    />,
    <Line
      key={name}
      data={inside}
      dataKey="mean"
      stroke="var(--color-spruce)"
      strokeWidth={drive === "throttle" ? 2.5 : 1.5}
      strokeDasharray={DASHES[ground]!}
      dot={false}
      activeDot={false}
      {...STILL}
    />,
  ];
}

/** The highest of what was measured, and of the curves where they are set against. */
function highest(
  { curves, spots }: Pick<SweepChartProps, "curves" | "spots">,
  energy: (whPerM: number) => number,
): number {
  return Math.max(
    ...spots.map(({ whPerM }) => energy(whPerM.mean + Z_95 * whPerM.sd)),
    ...curves.map(({ whPerM, againstMps, speedMps }) =>
      energy(
        whPerM[
          Math.max(
            0,
            speedMps.findIndex((mps) => mps >= againstMps),
          )
        ]!.mean,
      ),
    ),
  );
}

/** Energy over speed: squares with whiskers, the fitted road load with its band for each ground and drive. */
export default function SweepChart({ curves, spots, outliers }: SweepChartProps) {
  const system = useSystem();
  const speed = (mps: number) => fromSi(mps, "speed", unitOf("speed", system));
  const energy = (whPerM: number) => fromSi(whPerM, "energyPerDistance", unitOf("energyPerDistance", system));
  const most = highest({ curves, spots }, energy);
  const heights = stepsCovering(1.2 * most, 4);
  const top = heights.at(-1)!;
  const fastest = Math.max(...spots.map(({ speedMps }) => speed(speedMps)));
  const ends = stepsCovering(1.25 * fastest, 5);
  return (
    <>
      <ResponsiveContainer width="100%" height={HEIGHT}>
        <ComposedChart margin={{ top: 8, right: 16, bottom: 24, left: 4 }} accessibilityLayer={false}>
          <CartesianGrid {...GRID} />
          <XAxis
            type="number"
            dataKey="speed"
            domain={[0, ends.at(-1)!]}
            ticks={[...ends]}
            allowDuplicatedCategory={false}
            {...AXIS}
            tickFormatter={(value: number) => value.toFixed(0)}
            label={below(unitOf("speed", system))}
          />
          <YAxis
            type="number"
            domain={[0, top]}
            ticks={[...heights]}
            allowDataOverflow
            width={44}
            {...AXIS}
          />
          {curves.flatMap((curve) => layersOf(curve, { speed, energy, top, farthest: ends.at(-1)! }))}
          <Scatter
            data={spots.map(({ speedMps, whPerM, oneWay }, i) => ({
              speed: speed(speedMps),
              mean: energy(whPerM.mean),
              error: energy(Z_95 * whPerM.sd),
              oneWay,
              off: outliers.has(i),
            }))}
            dataKey="mean"
            shape={Dot}
            {...STILL}
          >
            <ErrorBar
              dataKey="error"
              direction="y"
              width={0}
              stroke="var(--color-spruce)"
              strokeWidth={1.5}
              {...STILL}
            />
          </Scatter>
        </ComposedChart>
      </ResponsiveContainer>
      <Legend curves={curves} />
    </>
  );
}
