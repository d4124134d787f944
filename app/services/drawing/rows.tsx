import { COLOURS, type DrawingTheme } from "./colours";
import { fitting } from "./letters";

/** A figure on a scale that it shares with others. */
export interface DrawnRow {
  readonly name: string;
  /** The figure as it is written. */
  readonly says: string;
  readonly mean: number;
  readonly low: number;
  readonly high: number;
  /** What is claimed, beside what was measured. */
  readonly claimed?: { readonly low: number; readonly high: number } | undefined;
  /** A sketch: drawn hollow. */
  readonly hollow?: boolean | undefined;
}

interface RowsProps {
  readonly rows: readonly DrawnRow[];
  readonly width: number;
  /** Height of a row. */
  readonly each: number;
  /** Size of the letters. */
  readonly size: number;
  readonly theme: DrawingTheme;
  /** The scale's steps, least first; the last is its end. */
  readonly steps: readonly number[];
  /** Names stand over their lines: for what is narrow. */
  readonly stacked?: boolean;
}

interface Placing {
  readonly x: (value: number) => number;
  readonly size: number;
  readonly height: number;
  readonly colours: (typeof COLOURS)[DrawingTheme];
}

/** The dot, its span, and what is claimed, around a height. */
function Mark({ row, y, at }: { readonly row: DrawnRow; readonly y: number; readonly at: Placing }) {
  const { mean, low, high, claimed, hollow } = row;
  const { x, size, height, colours } = at;
  return (
    <>
      {claimed ? (
        <rect
          x={x(claimed.low) - size / 8}
          y={y - 0.3 * height}
          width={Math.max(size / 4, x(claimed.high) - x(claimed.low) + size / 4)}
          height={0.6 * height}
          fill="none"
          stroke={colours.slate}
          strokeWidth={size / 10}
        />
      ) : null}
      <path d={`M${x(low)} ${y}H${x(high)}`} stroke={colours.spruce} strokeWidth={size / 7} />
      <circle
        cx={x(mean)}
        cy={y}
        r={0.4 * size}
        fill={hollow ? colours.sheet : colours.spruce}
        stroke={colours.spruce}
        strokeWidth={size / 8}
      />
    </>
  );
}

/** Named figures as dots with their spans on one scale, a row each; what is claimed as an empty box. */
export function Rows({ rows, width, each, size, theme, steps, stacked = false }: RowsProps) {
  const colours = COLOURS[theme];
  const nameWidth = stacked ? 0.72 * width : 0.36 * width;
  const [left, right] = stacked ? [0.5 * size, width - 0.5 * size] : [0.38 * width, 0.78 * width];
  const end = steps.at(-1) ?? 1;
  const x = (value: number) => left + (Math.min(end, Math.max(0, value)) / end) * (right - left);
  const foot = rows.length * each;
  const at: Placing = { x, size, height: stacked ? 0.5 * each : each, colours };
  return (
    <g fontSize={size}>
      {steps.map((step) => (
        <g key={step}>
          <path d={`M${x(step)} 0V${foot}`} stroke={colours.rule} strokeWidth={Math.max(1, size / 24)} />
          <text
            x={x(step)}
            y={foot + 1.2 * size}
            textAnchor="middle"
            fill={colours.quiet}
            fontSize={0.8 * size}
          >
            {step}
          </text>
        </g>
      ))}
      {rows.map((row, i) => {
        const y = (i + (stacked ? 0.74 : 0.5)) * each;
        const text = stacked ? (i + 0.34) * each : y + 0.35 * size;
        return (
          <g key={`${i}/${row.name}`}>
            <text x={0} y={text}>
              {fitting(row.name, nameWidth, size)}
            </text>
            <Mark row={row} y={y} at={at} />
            <text x={width} y={text} textAnchor="end" fontWeight={700}>
              {row.says}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** How high so many rows are, with their scale. */
export const rowsHeight = (count: number, each: number, size: number): number => count * each + 1.6 * size;
