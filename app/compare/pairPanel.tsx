import { Link } from "react-router";
import {
  formatBare,
  formatQuantity,
  formatUncertain,
  METRES_PER_MILE,
  scale,
  writeUncertain,
} from "#core/quantities";
import { useSystem } from "#ui/system";
import type { ComparedPair } from "./row";

interface PairPanelProps {
  readonly pair: ComparedPair | null;
  readonly oneChosen: boolean;
}

/** The thriftier of the two, by its bike, or by its test where the bike is the same. */
function thriftier({ first, second, difference }: ComparedPair): string {
  const row = difference.mean > 0 ? second : first;
  return first.bike === second.bike ? `“${row.title}”` : row.bike;
}

const signed = (text: string, value: number) => (value > 0 ? `+${text}` : text);

/** Two tests side by side: the difference, whether it is real, and what else differed. */
export function PairPanel({ pair, oneChosen }: PairPanelProps) {
  const system = useSystem();
  return (
    <aside aria-label="Two tests" className="sheet h-fit p-5">
      {pair ? (
        <>
          <h2>
            {pair.first.bike} against {pair.second.bike}
          </h2>
          <p className="text-sm text-quiet">
            {pair.first.title}; {pair.second.title}
          </p>
          <p className="mt-3 text-4xl leading-none font-bold">
            {signed(formatBare(pair.difference.mean, "energyPerDistance", system), pair.difference.mean)}
          </p>
          <p className="text-lg">
            ± {writeUncertain(pair.difference, "energyPerDistance", system).error}{" "}
            <span className="text-sm text-quiet">
              {writeUncertain(pair.difference, "energyPerDistance", system).unit}
            </span>
          </p>
          <p className={`mt-3 ${pair.resolved ? "" : "text-ochre"}`}>
            {pair.resolved
              ? `Resolved: ${thriftier(pair)} used less, by more than twice the doubt.`
              : "Not resolved: the difference is within twice the doubt."}
          </p>
          <table className="table mt-3 w-full text-sm">
            <tbody>
              {[pair.first, pair.second].map((row) => (
                <tr key={row.id}>
                  <td>
                    <Link to={`/strip/${row.id}`}>{row.bike}</Link>
                    <div className="text-quiet">{row.because}</div>
                  </td>
                  <td className="number">{formatUncertain(row.whPerM, "energyPerDistance", system)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <h3 className="mt-4 font-bold">What else differed</h3>
          {pair.confounders.length ? (
            <ul className="mt-1 list-disc pl-5 text-sm">
              {pair.confounders.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </ul>
          ) : (
            <p className="text-sm text-quiet">Nothing that was noted.</p>
          )}
          <p className="mt-3 text-sm text-quiet">
            Over {formatQuantity(METRES_PER_MILE * 20, "distance", system, 0)} the difference is{" "}
            {formatUncertain(scale(pair.difference, METRES_PER_MILE * 20), "energy", system)}.
          </p>
        </>
      ) : (
        <>
          <h2>Compare two</h2>
          <p className="mt-1 text-quiet">
            {oneChosen
              ? "One is chosen. Tick another to see the difference."
              : "Tick two tests to see their difference, whether it is real, and what else differed."}
          </p>
        </>
      )}
    </aside>
  );
}
