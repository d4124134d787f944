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
        <thead>
          <tr>
            <th>Between the first run of each</th>
            <th className="number">A less B, {unit}</th>
            <th className="number">±</th>
          </tr>
        </thead>
        <tbody>
          {worths.map(({ factor, whPerM, sentence }) => (
            <tr key={factor}>
              <td>
                {FACTOR_WORDS[factor]}
                <span className="block text-sm text-quiet">{say(sentence)}</span>
              </td>
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
        {formatUncertain(leftOver(difference, worths), "energyPerDistance", system)}.
      </p>
    </>
  );
}
