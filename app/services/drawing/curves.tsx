import { stepsCovering } from "#app/ui/charts/scale";
import { fromSi, halfWidth95, unitOf, type System } from "#core/base";
import type { CardContent } from "#core/telling";
import { COLOURS, type DrawingTheme } from "./colours";

type CurvesContent = Extract<CardContent, { readonly kind: "curves" }>;

interface CurvesProps {
  readonly content: CurvesContent;
  readonly width: number;
  readonly height: number;
  readonly size: number;
  readonly theme: DrawingTheme;
  readonly system: System;
}

/** Lines told apart without colour, in the order in which they come. */
const DASHES = ["", "10 4", "4 4", "2 3", "12 3 2 3"];
/** The scale reaches so far beyond what was measured. */
const BEYOND = 1.25;
/** Room for the name of a line, in sizes of its letters. */
const NAME = 13;

const dashOf = (i: number, size: number) =>
  DASHES[i % DASHES.length]!.replace(/\d+/g, (each) => String((Number(each) * size) / 16));

interface SpotsProps {
  readonly spots: CurvesContent["spots"];
  /** Where a speed and an energy lie, SI to pixels. */
  readonly at: { readonly x: (mps: number) => number; readonly y: (whPerM: number) => number };
  readonly size: number;
  readonly colours: (typeof COLOURS)[DrawingTheme];
}

/** Speeds that were held, each with its span; hollow where ridden one way only. */
const Spots = ({ spots, at: { x, y }, size, colours }: SpotsProps) =>
  spots.map(({ speedMps, whPerM, hollow }, i) => (
    <g key={i} stroke={colours.spruce} strokeWidth={size / 10}>
      <path
        d={`M${x(speedMps)} ${y(whPerM.mean - halfWidth95(whPerM))}V${y(whPerM.mean + halfWidth95(whPerM))}`}
      />
      <circle
        cx={x(speedMps)}
        cy={y(whPerM.mean)}
        r={0.36 * size}
        fill={hollow ? colours.sheet : colours.spruce}
      />
    </g>
  ));

/** Energy over speed: what was held, with its span, and the road load fitted to it. */
export function Curves({ content: { curves, spots }, width, height, size, theme, system }: CurvesProps) {
  const colours = COLOURS[theme];
  const [speedUnit, useUnit] = [unitOf("speed", system), unitOf("energyPerDistance", system)];
  const speed = (mps: number) => fromSi(mps, "speed", speedUnit);
  const energy = (whPerM: number) => fromSi(whPerM, "energyPerDistance", useUnit);
  const across = stepsCovering(BEYOND * Math.max(1, ...spots.map(({ speedMps }) => speed(speedMps))), 6);
  const up = stepsCovering(
    BEYOND * Math.max(1, ...spots.map(({ whPerM }) => energy(whPerM.mean + halfWidth95(whPerM)))),
    4,
  );
  // Names of the lines stand below, as many in a row as there is room for.
  const inRow = Math.max(1, Math.floor(width / (NAME * size)));
  const left = 3 * size;
  const foot = height - (3.6 + 1.5 * Math.ceil(curves.length / inRow)) * size;
  const x = (value: number) => left + (value / across.at(-1)!) * (width - left - size);
  const y = (value: number) => foot - (Math.min(up.at(-1)!, Math.max(0, value)) / up.at(-1)!) * (foot - size);
  const inside = curves.map((curve) => ({
    ...curve,
    points: curve.speedMps.flatMap((mps, i) => {
      const { mean } = curve.whPerM[i]!;
      const here = energy(mean);
      return speed(mps) <= across.at(-1)! && here <= up.at(-1)! ? [[x(speed(mps)), y(here)] as const] : [];
    }),
  }));
  return (
    <g fontSize={size}>
      {up.map((step) => (
        <g key={step}>
          <path d={`M${left} ${y(step)}H${width - size}`} stroke={colours.rule} strokeWidth={size / 20} />
          <text x={left - size / 2} y={y(step) + 0.35 * size} textAnchor="end" fill={colours.quiet}>
            {step}
          </text>
        </g>
      ))}
      {across.map((step) => (
        <text key={step} x={x(step)} y={foot + 1.4 * size} textAnchor="middle" fill={colours.quiet}>
          {step}
        </text>
      ))}
      <text x={width - size} y={foot + 2.8 * size} textAnchor="end" fill={colours.quiet}>
        {speedUnit}
      </text>
      <text x={left} y={0.6 * size} fill={colours.quiet}>
        {useUnit}
      </text>
      {inside.map(({ name, points }, i) => {
        const [nameX, nameY] = [
          left + (i % inRow) * NAME * size,
          foot + (4 + 1.5 * Math.floor(i / inRow)) * size,
        ];
        const line = { stroke: colours.spruce, strokeWidth: size / 8, strokeDasharray: dashOf(i, size) };
        return (
          <g key={name}>
            <polyline
              points={points.map(([px, py]) => `${px.toFixed(1)},${py.toFixed(1)}`).join(" ")}
              fill="none"
              {...line}
            />
            <path d={`M${nameX} ${nameY}h${2 * size}`} {...line} />
            <text x={nameX + 2.4 * size} y={nameY + 0.3 * size} fontSize={0.85 * size}>
              {name}
            </text>
          </g>
        );
      })}
      <Spots
        spots={spots}
        at={{ x: (mps) => x(speed(mps)), y: (whPerM) => y(energy(whPerM)) }}
        size={size}
        colours={colours}
      />
    </g>
  );
}
