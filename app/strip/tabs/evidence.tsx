import { lazy } from "react";
import { fixed, fromSi, halfWidth95, unitOf, type Estimate } from "#core/base";
import { Chart } from "#ui/charts/chart";
import { Figure } from "#ui/figure";
import { useSpoken, useSystem } from "#ui/system";
import type { StripResults } from "#app/services/strip/view";
import type { EvidenceDot } from "./evidenceChart";

interface Row {
  readonly name: string;
  readonly from: string;
  readonly whPerM: Estimate | null;
  readonly plain?: number;
}

const EvidenceChart = lazy(() => import("./evidenceChart"));

/** Heights shared by the names and the chart beside them, px. */
const ROW = 38;
const FOOT = 54;

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
          No kind of reading says anything by itself yet: two percents, two voltage readings at rest, a bar
          lost after a full start, or a counter would.
        </p>
      ) : null}
      <DotRows rows={rows} />
      <table className="table w-full">
        <caption className="sr-only">Wh for the distance, by each kind of reading alone</caption>
        <thead>
          <tr>
            <th scope="col">Evidence alone</th>
            <th scope="col">From</th>
            <th scope="col" className="number">
              Energy per distance
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, from, whPerM, plain }) => (
            <tr key={name} className={name === "best" ? "font-bold" : plain ? "text-slate" : ""}>
              <th scope="row">{name}</th>
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
        Each kind is solved by itself, with the full start where it counts from full; the true figure lies
        within the whiskers 95 times in 100. The straight line is shown because many use it; it is never part
        of best.
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

/** Names of the kinds beside their dots with whiskers. */
function DotRows({ rows }: { readonly rows: readonly Row[] }) {
  const unit = unitOf("energyPerDistance", useSystem());
  const shown = (whPerM: number) => fromSi(whPerM, "energyPerDistance", unit);
  const dots = rows.map(({ name, whPerM, plain }, i): EvidenceDot => ({
    name,
    mean: shown(whPerM?.mean ?? plain!),
    half: whPerM && shown(halfWidth95(whPerM)),
    colour: plain !== undefined ? "var(--color-slate)" : i === 0 ? "var(--color-spruce)" : "var(--color-ink)",
    hollow: name.includes("straight line"),
  }));
  return (
    <div className="grid min-w-0 grid-cols-[7.5rem_minmax(0,1fr)] sm:grid-cols-[12rem_minmax(0,1fr)]">
      <ul aria-hidden className="text-sm leading-tight sm:text-base">
        {dots.map(({ name, colour, hollow }, i) => (
          <li
            key={name}
            className={`flex items-center ${i === 0 ? "font-bold" : ""} ${hollow ? "italic" : ""}`}
            style={{ height: ROW, color: colour }}
          >
            {name}
          </li>
        ))}
      </ul>
      <Chart
        label="Each kind of evidence as a dot with its 95 % whisker; the table below holds the figures."
        height={ROW * rows.length + FOOT}
        className="min-w-0"
      >
        <EvidenceChart dots={dots} unit={unit} row={ROW} foot={FOOT} />
      </Chart>
    </div>
  );
}
