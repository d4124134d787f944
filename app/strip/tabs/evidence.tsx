import { useRef } from "react";
import { fixed, fromSi, halfWidth95, unitOf, type Estimate } from "#core/base";
import { Figure } from "#ui/figure";
import { useSpoken, useSystem } from "#ui/system";
import { stepsWithin, useWidth } from "#app/ui/scale";
import type { StripResults } from "#app/services/strip/view";

interface Row {
  readonly name: string;
  readonly from: string;
  readonly whPerM: Estimate | null;
  readonly plain?: number;
}

const ROW = 34;
const TOP = 26;
const LEFT = 190;

/** What each kind of evidence alone would say, as a row of dots with whiskers, beside plain and best. */
export function Evidence({ results }: { readonly results: StripResults }) {
  const spoken = useSpoken();
  const rows: readonly Row[] = [
    { name: "best", from: "all readings together", whPerM: results.best.value },
    ...results.alone.map(({ name, from, whPerM }) => ({ name, from, whPerM })),
    ...(results.plain
      ? [{ name: "plain", from: results.plain.because, whPerM: null, plain: results.plain.whPerM }]
      : []),
  ];
  return (
    <div className="grid max-w-3xl gap-4">
      {results.aloneSentence ? <p>{spoken(results.aloneSentence)}</p> : null}
      {results.alone.length === 0 ? (
        <p className="text-quiet">
          No kind of reading says anything by itself yet: two percents, two rest volts, a bar lost after a
          full start, or a counter would.
        </p>
      ) : null}
      <DotRows rows={rows} />
      <table className="table w-full">
        <thead>
          <tr>
            <th>Evidence alone</th>
            <th>From</th>
            <th className="number">Energy per distance</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, from, whPerM, plain }) => (
            <tr key={name} className={name === "best" ? "font-bold" : plain ? "text-slate" : ""}>
              <td>{name}</td>
              <td className="text-sm font-normal">{from}</td>
              <td className="number">
                {whPerM ? (
                  <Figure value={whPerM} dimension="energyPerDistance" />
                ) : (
                  <PlainFigure whPerM={plain!} />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-quiet">
        Each kind is solved by itself, with the full start where it counts from full; whiskers hold 95 of 100.
        The straight line is shown because many use it; it is never part of best.
      </p>
    </div>
  );
}

function PlainFigure({ whPerM }: { readonly whPerM: number }) {
  const unit = unitOf("energyPerDistance", useSystem());
  return (
    <>
      {fixed(fromSi(whPerM, "energyPerDistance", unit), 1)} <span className="text-quiet">{unit}</span>
    </>
  );
}

/** Farthest a whisker is drawn from best, as a multiple of best. */
const FARTHEST = 1.2;

interface DotRowProps {
  readonly row: Row;
  readonly i: number;
  readonly narrow: boolean;
  readonly x: (value: number) => number;
  readonly shown: (whPerM: number) => number;
  readonly low: number;
  readonly high: number;
}

/** One kind of evidence: a dot with its whisker. */
function DotRow({ row: { name, whPerM, plain }, i, narrow, x, shown, low, high }: DotRowProps) {
  const y = TOP + i * ROW + 6;
  const colour =
    plain !== undefined ? "var(--color-slate)" : i === 0 ? "var(--color-spruce)" : "var(--color-ink)";
  const hollow = name.includes("straight line");
  const middle = shown(whPerM?.mean ?? plain!);
  const whisker = whPerM && [middle - shown(halfWidth95(whPerM)), middle + shown(halfWidth95(whPerM))];
  return (
    <g>
      <text
        x={0}
        y={y + 5}
        fill={colour}
        fontWeight={i === 0 ? 650 : 400}
        fontStyle={hollow ? "italic" : undefined}
      >
        {narrow ? name.replace(", by a ", ", ").replace(", by the ", ", ") : name}
      </text>
      {whisker ? (
        <path
          d={`M${x(whisker[0]!)} ${y}H${x(whisker[1]!)}${whisker[0]! >= low ? `M${x(whisker[0]!)} ${y - 5}v10` : ""}${whisker[1]! <= high ? `M${x(whisker[1]!)} ${y - 5}v10` : ""}`}
          stroke={colour}
          strokeWidth={1.6}
          strokeDasharray={hollow ? "4 3" : undefined}
          fill="none"
        />
      ) : null}
      <circle
        cx={x(middle)}
        cy={y}
        r={i === 0 ? 6.5 : 5}
        fill={hollow ? "var(--color-bone)" : colour}
        stroke={colour}
        strokeWidth={1.6}
      />
    </g>
  );
}

function DotRows({ rows }: { readonly rows: readonly Row[] }) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 700);
  const left = width < 520 ? 118 : LEFT;
  const unit = unitOf("energyPerDistance", useSystem());
  const shown = (whPerM: number) => fromSi(whPerM, "energyPerDistance", unit);
  const best = shown(rows[0]!.whPerM!.mean);
  const spans = rows.flatMap(({ whPerM, plain }) =>
    whPerM
      ? [shown(whPerM.mean - halfWidth95(whPerM)), shown(whPerM.mean + halfWidth95(whPerM))]
      : [shown(plain!)],
  );
  const low = Math.max(0, Math.min(...spans, best * 0.9));
  const high = Math.min(best * (1 + FARTHEST), Math.max(...spans, best * 1.1));
  const x = (value: number) =>
    left + ((Math.min(high, Math.max(low, value)) - low) / (high - low)) * (width - left - 16);
  const foot = TOP + rows.length * ROW;
  return (
    <div ref={frame} className="min-w-0">
      <svg
        width={width}
        height={foot + 34}
        viewBox={`0 0 ${width} ${foot + 34}`}
        role="img"
        aria-label="Each kind of evidence as a dot with its 95 % whisker; the table below holds the figures."
        fontSize={13}
        fill="currentColor"
      >
        <rect
          x={x(spans[0]!)}
          y={TOP - 12}
          width={Math.max(1, x(spans[1]!) - x(spans[0]!))}
          height={foot - TOP + 8}
          fill="var(--color-spruce)"
          fillOpacity={0.12}
        />
        {stepsWithin(low, high, Math.max(3, Math.floor((width - left) / 90))).map((step) => (
          <g key={step}>
            <path d={`M${x(step)} ${TOP - 12}V${foot}`} stroke="var(--color-rule)" />
            <text x={x(step)} y={foot + 16} textAnchor="middle" fill="var(--color-quiet)">
              {step}
            </text>
          </g>
        ))}
        <text x={width - 16} y={foot + 31} textAnchor="end" fill="var(--color-quiet)">
          {unit}
        </text>
        {rows.map((row, i) => (
          <DotRow key={row.name} row={row} i={i} narrow={width < 520} {...{ x, shown, low, high }} />
        ))}
      </svg>
    </div>
  );
}
