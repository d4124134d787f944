import { useRef } from "react";
import { stepsWithin, useWidth } from "#app/ui/charts/scale";
import { buildRoute, type Course } from "#core/route";
import { formatQuantity, fromSi, toSi, unitOf } from "#core/base";
import { GroundBand, groundRuns } from "#ui/charts/groundBand";
import { GroundPatterns } from "#ui/charts/groundPatterns";
import { useSystem } from "#ui/system";

const HEIGHT = 150;
const FOOT = 96;
const PLACE_TOP = 12;

/** The height of the way out over its ground, with its places. */
export function ProfileChart({ course }: { readonly course: Course }) {
  const system = useSystem();
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 720);
  const pieces = buildRoute({ ...course, shape: "loop" }, 1).lap;
  const points = [{ atM: 0, heightM: 0 }];
  for (const { lengthM, slope } of pieces) {
    const last = points.at(-1)!;
    points.push({ atM: last.atM + lengthM, heightM: last.heightM + slope * lengthM });
  }
  const totalM = points.at(-1)!.atM;
  const heights = points.map(({ heightM }) => heightM);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const x = (metres: number) => 8 + (metres / totalM) * (width - 16);
  const y = (height: number) => FOOT - ((height - low) / Math.max(12, high - low)) * (FOOT - 30);
  const unit = unitOf("distance", system);
  const ticks = stepsWithin(0, fromSi(totalM, "distance", unit), 8);
  return (
    <div ref={box}>
      <svg
        width={width}
        height={HEIGHT}
        viewBox={`0 0 ${width} ${HEIGHT}`}
        className="w-full"
        role="img"
        aria-label={`Profile: ${formatQuantity(totalM, "distance", system)} out, ${formatQuantity(high - low, "climb", system)} between lowest and highest`}
        fontSize={12}
      >
        <GroundPatterns />
        <polygon
          points={`${x(0)},${FOOT} ${points.map((point) => `${x(point.atM).toFixed(1)},${y(point.heightM).toFixed(1)}`).join(" ")} ${x(totalM)},${FOOT}`}
          fill="var(--color-land)"
        />
        <polyline
          points={points
            .map((point) => `${x(point.atM).toFixed(1)},${y(point.heightM).toFixed(1)}`)
            .join(" ")}
          fill="none"
          stroke="var(--color-quiet)"
          strokeWidth={1.2}
        />
        <GroundBand
          runs={groundRuns(pieces).map(({ fromM, toM, ground }) => ({ from: x(fromM), to: x(toM), ground }))}
          top={FOOT + 4}
          height={18}
        />
        {course.places.map(({ name, atM: placeM }) => (
          <g key={`${name} ${placeM}`}>
            <line x1={x(placeM)} x2={x(placeM)} y1={PLACE_TOP + 4} y2={FOOT} stroke="var(--color-spruce)" />
            <text
              x={x(placeM) + (x(placeM) > width - 130 ? -4 : 4)}
              y={PLACE_TOP + 8}
              textAnchor={x(placeM) > width - 130 ? "end" : "start"}
            >
              {name}
            </text>
          </g>
        ))}
        {ticks.map((tick) => (
          <text
            key={tick}
            x={x(toSi(tick, "distance", unit)!)}
            y={HEIGHT - 8}
            textAnchor={tick === 0 ? "start" : "middle"}
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
