import type { ReactElement } from "react";
interface ShapeProps {
  readonly kind: string;
  readonly x: number;
  readonly y: number;
  /** Hollow: in question or set aside. */
  readonly hollow?: boolean;
  readonly colour?: string;
}

interface Drawn {
  readonly x: number;
  readonly y: number;
  readonly hollow: boolean;
  readonly colour: string;
  readonly paint: { readonly fill: string; readonly stroke: string; readonly strokeWidth: number };
}

const diamondAt = (x: number, y: number) =>
  `M${x} ${y - 6.5}L${x + 6.5} ${y}L${x} ${y + 6.5}L${x - 6.5} ${y}Z`;

const bowl = ({ x, y, paint }: Drawn) => (
  <path d={`M${x - 6} ${y - 4}A6 7 0 0 0 ${x + 6} ${y - 4}Z`} {...paint} />
);

/** Each kind's own shape; the others are a square. */
const SHAPES: Readonly<Partial<Record<string, (drawn: Drawn) => ReactElement>>> = {
  percent: ({ x, y, paint }) => <circle cx={x} cy={y} r={4.5} {...paint} />,
  restVolts: ({ x, y, hollow, paint }) => (
    <path
      d={diamondAt(x, y)}
      {...paint}
      fill={hollow ? "var(--color-bone)" : "var(--color-sheet)"}
      strokeWidth={hollow ? 1.5 : 2.2}
    />
  ),
  loadedVolts: ({ x, y, paint }) => (
    <g {...paint}>
      <path d={diamondAt(x, y)} />
      <path d={`M${x - 7} ${y + 10}H${x + 7}`} fill="none" strokeWidth={2} />
    </g>
  ),
  bars: ({ x, y, hollow, colour }) => (
    <path
      d={`M${x - 5} ${y - 5}V${y + 5}M${x} ${y - 5}V${y + 5}M${x + 5} ${y - 5}V${y + 5}`}
      fill="none"
      stroke={colour}
      strokeWidth={2}
      strokeDasharray={hollow ? "2 2" : undefined}
    />
  ),
  barLost: ({ x, y, hollow, colour }) => (
    <path
      d={`M${x - 7} ${y - 5}H${x}V${y + 5}H${x + 7}`}
      fill="none"
      stroke={colour}
      strokeWidth={2.5}
      strokeDasharray={hollow ? "2 2" : undefined}
    />
  ),
  lastBarBlinking: ({ x, y, colour }) => (
    <path
      d={`M${x - 7} ${y - 5}H${x}V${y + 5}H${x + 7}M${x + 3} ${y - 5}V${y}`}
      fill="none"
      stroke={colour}
      strokeWidth={2}
    />
  ),
  lowPower: ({ x, y, colour }) => (
    <path
      d={`M${x - 6} ${y - 4}L${x} ${y + 4}L${x + 6} ${y - 4}`}
      fill="none"
      stroke={colour}
      strokeWidth={2.5}
    />
  ),
  cutOff: ({ x, y, hollow, colour }) => (
    <path
      d={`M${x - 2.5} ${y - 8}V${y + 8}M${x + 2.5} ${y - 8}V${y + 8}`}
      stroke={hollow ? colour : "var(--color-rust)"}
      strokeWidth={2.2}
    />
  ),
  fullStart: ({ x, y, colour }) => (
    <path d={`M${x - 5} ${y + 5}V${y - 5}H${x + 5}V${y + 5}`} fill="none" stroke={colour} strokeWidth={2.2} />
  ),
  chargeCounter: ({ x, y, paint }) => (
    <path d={`M${x - 4.5} ${y - 4.5}H${x + 1}L${x + 4.5} ${y - 1}V${y + 4.5}H${x - 4.5}Z`} {...paint} />
  ),
  telemetry: ({ x, y, hollow, colour, paint }) => (
    <g {...paint}>
      <rect x={x - 4.5} y={y - 4.5} width={9} height={9} />
      <path
        d={`M${x - 4.5} ${y}h2l1.5 -2.5l2 5l1.5 -2.5h2`}
        fill="none"
        stroke={hollow ? colour : "var(--color-bone)"}
        strokeWidth={1.2}
      />
    </g>
  ),
  wallCharge: bowl,
  wallRefill: bowl,
};

/** The shape of each kind of reading, the same on every chart; drawn around (x, y). */
export function ReadingShape({ kind, x, y, hollow = false, colour = "var(--color-ink)" }: ShapeProps) {
  const paint = { fill: hollow ? "var(--color-bone)" : colour, stroke: colour, strokeWidth: 1.5 };
  return (
    SHAPES[kind]?.({ x, y, hollow, colour, paint }) ?? (
      <rect x={x - 4.5} y={y - 4.5} width={9} height={9} {...paint} />
    )
  );
}
