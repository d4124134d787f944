import { useRef } from "react";
import { clockText, fixed, formatQuantity } from "#core/base";
import { useWidth } from "#app/ui/charts/scale";
import type { ClockedDevice, ClockLine, Clocks } from "#app/services/recordings/clocks";
import { useSystem } from "#ui/system";

/** A device with the offset that is tried, s on top of what is kept. */
export interface TriedDevice {
  readonly device: ClockedDevice;
  readonly moreS: number;
}

interface LanesProps {
  readonly noted: Clocks["noted"];
  readonly tried: readonly TriedDevice[];
  /** When something was said in the film, s since the epoch. */
  readonly spoken: readonly number[];
  readonly zone: string;
}

const [LANE, LEFT, TOP, FOOT] = [56, 92, 8, 22];
const LONGEST_TICK_S = [60, 300, 600, 900, 1800, 3600, 7200, 14_400, 43_200, 86_400, 7 * 86_400];

/** From the earliest to the latest moment that is drawn, s; null where nothing has a time. */
function spanOf({ noted, tried, spoken }: Omit<LanesProps, "zone">): readonly [number, number] | null {
  const all = [
    ...noted.map(({ timeS }) => timeS),
    ...spoken,
    ...tried.flatMap(({ device, moreS }) => [device.fromS + moreS, device.toS + moreS]),
  ];
  if (all.length === 0) return null;
  const [from, to] = all.reduce(
    ([least, most], each) => [Math.min(least, each), Math.max(most, each)] as const,
    [Infinity, -Infinity] as readonly [number, number],
  );
  return [from, Math.max(to, from + 60)];
}

/** A recorded line as a path; holes stay open. */
function pathOf(
  { startS, stepS, values }: ClockLine,
  moreS: number,
  x: (s: number) => number,
  height: number,
): string {
  const most = values.reduce<number>((max, each) => Math.max(max, each ?? 0), 1e-9);
  let open = false;
  return values
    .map((value, i) => {
      if (value === null) {
        open = false;
        return "";
      }
      const y = height - 4 - (Math.max(0, value) / most) * (height - 10);
      const said = `${open ? "L" : "M"}${x(startS + (i + 0.5) * stepS + moreS).toFixed(1)} ${y.toFixed(1)}`;
      open = true;
      return said;
    })
    .join("");
}

const COLOURS = { speed: "stroke-spruce", power: "stroke-ochre" } as const;

/** The clocks over each other: what was noted, and the speed or power of each device, moved as they are tried. */
export function Lanes({ noted, tried, spoken, zone }: LanesProps) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 900);
  const system = useSystem();
  const span = spanOf({ noted, tried, spoken });
  if (!span) return null;
  const [from, to] = span;
  const x = (s: number) => LEFT + ((s - from) / (to - from)) * (width - LEFT - 12);
  const lanes = tried.flatMap(({ device, moreS }) => device.lines.map((line) => ({ device, moreS, line })));
  const filmTop = TOP + LANE * (1 + lanes.length);
  const height = filmTop + (spoken.length ? LANE : 0) + FOOT;
  const step = LONGEST_TICK_S.find((each) => (to - from) / each <= Math.max(3, width / 130)) ?? 7 * 86_400;
  const ticks = Array.from(
    { length: Math.floor((to - from) / step) + 1 },
    (_, i) => Math.ceil(from / step) * step + i * step,
  ).filter((each) => each <= to);
  return (
    <div ref={box} className="min-w-0 overflow-x-clip">
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={lanesSaid(noted, tried, spoken, zone)}
        className="block"
      >
        {ticks.map((at) => (
          <g key={at}>
            <line x1={x(at)} x2={x(at)} y1={TOP} y2={height - FOOT} className="stroke-rule" />
            <text x={x(at)} y={height - 6} textAnchor="middle" className="fill-quiet text-xs">
              {clockText(at * 1000, zone)}
            </text>
          </g>
        ))}
        <text x={0} y={TOP + LANE / 2 + 4} className="fill-ink text-sm">
          log
        </text>
        {noted.map(({ timeS, distanceM }, i) => (
          <g key={`${timeS}/${i}`}>
            <line
              x1={x(timeS)}
              x2={x(timeS)}
              y1={TOP + 22}
              y2={height - FOOT}
              className="stroke-ink"
              strokeDasharray="2 5"
            />
            <circle cx={x(timeS)} cy={TOP + 22} r={3.5} className="fill-ink" />
            {distanceM === null || i % Math.ceil((noted.length * 58) / (width - LEFT)) !== 0 ? null : (
              <text
                x={x(timeS)}
                y={TOP + 12}
                textAnchor={x(timeS) > width - 30 ? "end" : "middle"}
                className="fill-ink text-xs"
              >
                {formatQuantity(distanceM, "distance", system)}
              </text>
            )}
          </g>
        ))}
        {lanes.map(({ device, moreS, line }, i) => (
          <g key={`${device.id}/${line.what}`} transform={`translate(0 ${TOP + LANE * (i + 1)})`}>
            <line x1={LEFT} x2={width - 12} y1={LANE - 4} y2={LANE - 4} className="stroke-rule" />
            <text x={0} y={LANE / 2} className="fill-ink text-sm">
              {device.kind === "track" ? "recorder" : "meter"}
            </text>
            <text x={0} y={LANE / 2 + 16} className="fill-quiet text-xs">
              {line.what}
            </text>
            <path
              d={pathOf(line, moreS, x, LANE)}
              fill="none"
              strokeWidth={1.3}
              className={COLOURS[line.what]}
            />
          </g>
        ))}
        {spoken.length ? <FilmLane spoken={spoken} top={filmTop} x={x} to={width - 12} /> : null}
      </svg>
    </div>
  );
}

interface FilmLaneProps {
  readonly spoken: readonly number[];
  readonly top: number;
  readonly x: (s: number) => number;
  readonly to: number;
}

/** What was said in the film, each where it was said. */
function FilmLane({ spoken, top, x, to }: FilmLaneProps) {
  return (
    <g transform={`translate(0 ${top})`}>
      <line x1={LEFT} x2={to} y1={LANE - 4} y2={LANE - 4} className="stroke-rule" />
      <text x={0} y={LANE / 2} className="fill-ink text-sm">
        film
      </text>
      <text x={0} y={LANE / 2 + 16} className="fill-quiet text-xs">
        what was said
      </text>
      {spoken.map((at, i) => (
        <path
          key={`${at}/${i}`}
          d={`M${x(at).toFixed(1)} ${LANE / 2 - 5}l5 5l-5 5l-5 -5z`}
          className="fill-sheet stroke-ink"
        />
      ))}
    </g>
  );
}

/** What the lanes show, in words. */
function lanesSaid(
  noted: Clocks["noted"],
  tried: readonly TriedDevice[],
  spoken: readonly number[],
  zone: string,
): string {
  const clock = (timeS: number) => clockText(timeS * 1000, zone);
  const log = noted.length
    ? [`${fixed(noted.length, 0)} moments of the log from ${clock(noted[0]!.timeS)}`]
    : ["no moment of the log has a time"];
  const devices = tried.map(
    ({ device, moreS }) =>
      `${device.name} from ${clock(device.fromS + moreS)} to ${clock(device.toS + moreS)}`,
  );
  const film = spoken.length
    ? [`film, said from ${clock(spoken[0]!)} to ${clock(spoken[spoken.length - 1]!)}`]
    : [];
  return `Clocks over each other: ${[...log, ...devices, ...film].join("; ")}.`;
}
