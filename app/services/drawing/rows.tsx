import { COLOURS, type DrawingTheme } from "./colours";

/** A figure on a scale that it shares with others. */
export interface DrawnRow {
  readonly name: string;
  /** The figure as it is written. */
  readonly says: string;
  readonly mean: number;
  readonly low: number;
  readonly high: number;
  /** What is claimed, beside what was measured. */
  readonly claimed?: { readonly low: number; readonly high: number };
  /** A sketch: drawn hollow. */
  readonly hollow?: boolean;
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
}

/** Letters of this font are about so wide, of their size. */
const LETTER = 0.53;

/** A text cut where it would not fit, with a sign that it goes on. */
export function fitting(text: string, width: number, size: number): string {
  const most = Math.max(4, Math.floor(width / (LETTER * size)));
  return text.length <= most ? text : `${text.slice(0, most - 1).trimEnd()}…`;
}

/** Named figures as dots with their spans on one scale, a row each; what is claimed as an empty box. */
export function Rows({ rows, width, each, size, theme, steps }: RowsProps) {
  const colours = COLOURS[theme];
  const nameWidth = 0.36 * width;
  const saysWidth = 0.2 * width;
  const left = nameWidth + 0.02 * width;
  const right = width - saysWidth - 0.02 * width;
  const end = steps.at(-1) ?? 1;
  const x = (value: number) => left + (Math.min(end, Math.max(0, value)) / end) * (right - left);
  const foot = rows.length * each;
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
      {rows.map(({ name, says, mean, low, high, claimed, hollow }, i) => {
        const y = (i + 0.5) * each;
        return (
          <g key={`${i}/${name}`}>
            <text x={0} y={y + 0.35 * size}>
              {fitting(name, nameWidth, size)}
            </text>
            {claimed ? (
              <rect
                x={x(claimed.low) - size / 8}
                y={y - 0.32 * each}
                width={Math.max(size / 4, x(claimed.high) - x(claimed.low) + size / 4)}
                height={0.64 * each}
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
            <text x={width} y={y + 0.35 * size} textAnchor="end" fontWeight={700}>
              {says}
            </text>
          </g>
        );
      })}
    </g>
  );
}

/** How high so many rows are, with their scale. */
export const rowsHeight = (count: number, each: number, size: number): number => count * each + 1.6 * size;
