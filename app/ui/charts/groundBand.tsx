import { groundFill, groundLetter } from "./groundPatterns";

/** A run of one ground along a drawing, in pixels. */
export interface GroundRun {
  readonly from: number;
  readonly to: number;
  readonly ground: string;
}

/** Pieces in a row that share a ground, as one run each. Metres in, metres out. */
export function groundRuns(
  pieces: readonly { readonly lengthM: number; readonly ground: string }[],
): readonly { readonly fromM: number; readonly toM: number; readonly ground: string }[] {
  const runs: { fromM: number; toM: number; ground: string }[] = [];
  let atM = 0;
  for (const { lengthM, ground } of pieces) {
    const last = runs.at(-1);
    if (last?.ground === ground) last.toM = atM + lengthM;
    else runs.push({ fromM: atM, toM: atM + lengthM, ground });
    atM += lengthM;
  }
  return runs;
}

interface GroundBandProps {
  readonly runs: readonly GroundRun[];
  readonly top: number;
  readonly height: number;
}

/** Grounds as a band of hatches, each with its letter where it fits. The drawing holds the patterns. */
export function GroundBand({ runs, top, height }: GroundBandProps) {
  return runs.map(({ from, to, ground }) => (
    <g key={from}>
      <rect
        x={from}
        y={top}
        width={Math.max(0, to - from)}
        height={height}
        fill={groundFill(ground)}
        stroke="var(--color-rule)"
      />
      {to - from > 10 ? (
        <>
          <rect x={from + 2} y={top + 2} width={14} height={height - 4} fill="var(--color-bone)" />
          <text x={from + 4} y={top + height - 5} fontSize={12}>
            {groundLetter(ground)}
          </text>
        </>
      ) : null}
    </g>
  ));
}
