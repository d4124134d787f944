import { leftOver, type Worth } from "#core/compare";
import { fixed, formatBare, formatUncertain, fromSi, halfWidth95, unitOf, type Estimate } from "#core/base";
import { useSpoken, useSystem } from "#ui/system";
import { FACTOR_WORDS } from "./waterfall";

interface WorthsProps {
  readonly worths: readonly Worth[];
  /** A less B, as the pair's ledger has it. */
  readonly difference: Estimate;
}

/** What else differed between two runs, each with what the road load expects of it, and what is then left. */
export function Worths({ worths, difference }: WorthsProps) {
  const system = useSystem();
  const say = useSpoken();
  const unit = unitOf("energyPerDistance", system);
  const signed = (whPerM: number) =>
    `${whPerM < 0 ? "−" : "+"}${fixed(Math.abs(fromSi(whPerM, "energyPerDistance", unit)), 1)}`;
  return (
    <>
      <h2 className="mb-2">What the road load expects of what differed</h2>
      <table className="table w-full">
        <caption className="sr-only">What each difference was worth</caption>
        <thead>
          <tr>
            <th scope="col">Between the first run of each</th>
            <th scope="col" className="number">
              A less B, {unit}
            </th>
            <th scope="col" className="number">
              ±
            </th>
          </tr>
        </thead>
        <tbody>
          {worths.map(({ factor, whPerM, sentence }) => (
            <tr key={factor}>
              <th scope="row">
                {FACTOR_WORDS[factor]}
                <span className="block text-sm text-quiet">{say(sentence)}</span>
              </th>
              <td className="number">{signed(-whPerM.mean)}</td>
              <td className="number text-quiet">
                {formatBare(halfWidth95(whPerM), "energyPerDistance", system, 1)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2">
        What is left of the difference:{" "}
        {formatUncertain(leftOver(difference, worths), "energyPerDistance", system, true)}.
      </p>
    </>
  );
}
