import { useRef } from "react";
import { stepsWithin, useWidth } from "#app/ui/charts/scale";
import { buildRoute, type Course } from "#core/route";
import type { PlanResults } from "#core/planning";
import { formatBare, fromSi, Z_95, toSi, unitOf } from "#core/base";
import { GroundBand, groundRuns } from "#ui/charts/groundBand";
import { GroundPatterns } from "#ui/charts/groundPatterns";
import { useSystem } from "#ui/system";

const HEIGHT = 250;
const LEFT = 46;
const RIGHT = 14;
const TOP = 16;
const FOOT = 176;
const GROUND_TOP = 188;
const GROUND_HEIGHT = 20;

/** The ground of each stretch of the ride, laps in a row. */
function groundsOf(course: Course, endM: number) {
  const { lap, lapM } = buildRoute(course, 1);
  const laps = Math.ceil(endM / lapM - 1e-6);
  return groundRuns(Array.from({ length: laps }, () => lap).flat()).filter(({ fromM }) => fromM < endM - 1);
}

/** Where one must turn round. */
function TurnLine({ atX, width }: { readonly atX: number; readonly width: number }) {
  return (
    <g>
      <line x1={atX} x2={atX} y1={TOP - 4} y2={FOOT} stroke="var(--color-rust)" strokeWidth={1.5} />
      <text
        x={atX + (atX > width - 120 ? -5 : 5)}
        y={TOP + 6}
        textAnchor={atX > width - 120 ? "end" : "start"}
        fill="var(--color-rust)"
      >
        turn-round
      </text>
    </g>
  );
}

/** Lines of the charge left. */
function ChargeLines({ y, width }: { readonly y: (left: number) => number; readonly width: number }) {
  return [1, 0.75, 0.5, 0.25, 0].map((left) => (
    <g key={left}>
      <line x1={LEFT} x2={width - RIGHT} y1={y(left)} y2={y(left)} stroke="var(--color-rule)" />
      <text x={LEFT - 6} y={y(left) + 4} textAnchor="end" fill="var(--color-quiet)">
        {left * 100} %
      </text>
    </g>
  ));
}

/** Check-ins as rings. */
function CheckInDots({
  checkIns,
  x,
  y,
}: {
  readonly checkIns: PlanResults["checkIns"];
  readonly x: (metres: number) => number;
  readonly y: (left: number) => number;
}) {
  return checkIns.map(({ expected }) => (
    <circle
      key={expected.atM}
      cx={x(expected.atM)}
      cy={y(1 - expected.used.mean)}
      r={4}
      fill="var(--color-sheet)"
      stroke="var(--color-ochre)"
      strokeWidth={1.5}
    />
  ));
}

/** What is left of a pack at a fraction used, in percent. */
const percentLeft = (used: number) => `${Math.round(100 * Math.min(1, Math.max(0, 1 - used)))} %`;

/** The pack's expected fall along the way, with its 95 % band, over the ground; check-ins as ticks, the turn-round as a line. */
export function ForecastChart({
  results,
  course,
}: {
  readonly results: PlanResults;
  readonly course: Course;
}) {
  const system = useSystem();
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 720);
  const { endM, curve, checkIns, turn } = results;
  const x = (metres: number) => LEFT + (metres / endM) * (width - LEFT - RIGHT);
  const y = (left: number) => TOP + (1 - Math.min(1, Math.max(0, left))) * (FOOT - TOP);
  const edge = (side: 1 | -1) =>
    curve.map(
      ({ atM, used }) => `${x(atM).toFixed(1)},${y(1 - used.mean - side * Z_95 * used.sd).toFixed(1)}`,
    );
  const unit = unitOf("distance", system);
  const ticks = stepsWithin(0, fromSi(endM, "distance", unit), 8);
  const turnM =
    results.chanceHome !== null && turn.latestM !== null && turn.latestM < endM ? turn.latestM : null;
  return (
    <div ref={box}>
      <svg
        width={width}
        height={HEIGHT}
        viewBox={`0 0 ${width} ${HEIGHT}`}
        className="w-full"
        role="img"
        aria-label={`Forecast over ${formatBare(endM, "distance", system)} ${unit}: charge left falls to ${percentLeft(results.end.used.mean)}, and on 95 of 100 such days to between ${percentLeft(results.end.used.mean + Z_95 * results.end.used.sd)} and ${percentLeft(results.end.used.mean - Z_95 * results.end.used.sd)}`}
        fontSize={12}
      >
        <GroundPatterns />
        <ChargeLines y={y} width={width} />
        <polygon
          points={[...edge(1), ...edge(-1).reverse()].join(" ")}
          fill="var(--color-ochre-fill)"
          fillOpacity={0.18}
        />
        <polyline
          points={curve
            .map(({ atM, used }) => `${x(atM).toFixed(1)},${y(1 - used.mean).toFixed(1)}`)
            .join(" ")}
          fill="none"
          stroke="var(--color-ochre)"
          strokeWidth={2}
          strokeDasharray="6 4"
        />
        <CheckInDots checkIns={checkIns} x={x} y={y} />
        {turnM === null ? null : <TurnLine atX={x(turnM)} width={width} />}
        <GroundBand
          runs={groundsOf(course, endM).map(({ fromM, toM, ground }) => ({
            from: x(fromM),
            to: x(Math.min(toM, endM)),
            ground,
          }))}
          top={GROUND_TOP}
          height={GROUND_HEIGHT}
        />
        {ticks.map((tick) => (
          <text
            key={tick}
            x={x(toSi(tick, "distance", unit)!)}
            y={GROUND_TOP + GROUND_HEIGHT + 18}
            textAnchor="middle"
            fill="var(--color-quiet)"
          >
            {tick}
            {tick === ticks.at(-1) ? ` ${unit}` : ""}
          </text>
        ))}
      </svg>
    </div>
  );
}
