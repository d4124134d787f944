import { fixed, fromSi, Z_95, unitOf, writeUncertain } from "#core/base";
import { sourceWords } from "#core/analysis";
import { useSystem } from "#ui/system";
import { WhatIs } from "#ui/whatIs";
import type { StripResults } from "#app/services/strip/view";

/** Least share of the variance worth a line. */
const WORTH_A_LINE = 0.005;

/** "25 min", "4 h". */
export function minutesText(minutes: number): string {
  return minutes < 100 ? `${fixed(minutes, 0)} min` : `${fixed(minutes / 60, 1)} h`;
}

interface NextMeasuresProps {
  readonly results: StripResults;
  /** The plus-or-minus as it is, as written. */
  readonly error: string;
  /** Writes an sd as its plus-or-minus. */
  readonly shown: (sd: number, digits: number) => string;
}

/** What could be measured next, the most gained for a minute first. */
function NextMeasures({ results, error, shown }: NextMeasuresProps) {
  return (
    <section>
      <h2 className="mb-2">What to measure next</h2>
      <WhatIs word="surer" />
      <p className="mb-3 text-sm text-quiet">
        Each tried in the same model, by gain for each minute of a person's time.
      </p>
      {results.surer.length ? (
        <table className="table w-full">
          <caption className="sr-only">What to measure next</caption>
          <thead>
            <tr>
              <th scope="col">Measure</th>
              <th scope="col" className="number">
                Takes
              </th>
              <th scope="col" className="number">
                ± {error} becomes
              </th>
              <th scope="col" className="number">
                ± falls by, an hour of work
              </th>
            </tr>
          </thead>
          <tbody>
            {results.surer.map(({ measure, what, minutes, sdLeft, gainPerMinute }) => (
              <tr key={measure}>
                <th scope="row">{what}</th>
                <td className="number">{minutesText(minutes)}</td>
                <td className="number">± {shown(sdLeft, 2)}</td>
                <td className="number">{shown(gainPerMinute * 60, 2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p>Nothing quick would make it much surer: what is left is the meter's own gain, or the distance.</p>
      )}
    </section>
  );
}

/** What the plus-or-minus is made of, and what would make it smaller. */
export function Doubt({ results }: { readonly results: StripResults }) {
  const system = useSystem();
  const unit = unitOf("energyPerDistance", system);
  const { error } = writeUncertain(results.best.value, "energyPerDistance", system);
  const most = results.budget[0]?.share ?? 1;
  const shown = (sd: number, digits: number) => fixed(fromSi(Z_95 * sd, "energyPerDistance", unit), digits);
  return (
    <div className="grid max-w-3xl gap-8">
      <section>
        <h2 className="mb-2">
          What the ± {error} {unit} is made of
        </h2>
        <p className="mb-3 text-sm text-quiet">
          What the ± would be, were one thing known exactly and the rest as it is. Things that stand in for
          one another each gain little alone.
        </p>
        <table className="table w-full">
          <caption className="sr-only">What the doubt is made of</caption>
          <thead>
            <tr>
              <th scope="col">Source</th>
              <th scope="col" className="w-1/2">
                <span className="sr-only">Gain drawn</span>
              </th>
              <th scope="col" className="number">
                ± {error} would be
              </th>
            </tr>
          </thead>
          <tbody>
            {results.budget
              .filter(({ share }) => share > WORTH_A_LINE)
              .map(({ source, share, sdLeft }) => (
                <tr key={source}>
                  <th scope="row">{sourceWords(source)}</th>
                  <td>
                    <div className="h-3 bg-ochre-fill" style={{ width: `${(100 * share) / most}%` }} />
                  </td>
                  <td className="number">± {shown(sdLeft, 2)}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </section>
      <NextMeasures results={results} error={error} shown={shown} />
    </div>
  );
}
