import {
  type Result,
  fixed,
  formatQuantity,
  fromSi,
  Z_95,
  unitOf,
  writeNarrowing,
  type System,
} from "#core/base";
import type { PlanYield } from "#core/planning";
import { useSystem } from "#ui/system";
import { halfWidthText, PriceLine } from "./yieldText";

const half = (sd: number, system: System) =>
  fromSi(Z_95 * sd, "energyPerDistance", unitOf("energyPerDistance", system));

function Comparison({ will }: { readonly will: PlanYield }) {
  const system = useSystem();
  const { comparison } = will;
  if (!comparison) return null;
  const unit = unitOf("energyPerDistance", system);
  const wanted = fixed(fromSi(comparison.wanted, "energyPerDistance", unit), 1);
  const ways = [
    comparison.pairsNeeded === null ? "" : `${comparison.pairsNeeded} runs of each on this section`,
    comparison.sectionNeededM === null
      ? ""
      : `a section of ${formatQuantity(comparison.sectionNeededM, "distance", system)} with these runs`,
  ].filter(Boolean);
  return (
    <div className="mt-2 text-sm">
      <p>
        Order: <strong>{comparison.order.join(", ")}</strong>. A steady drift of wind, warmth or charge
        cancels.
      </p>
      <p className={comparison.resolved ? "" : "text-ochre"}>
        {comparison.resolved
          ? `A difference of ${wanted} ${unit} will be told from none.`
          : `A difference of ${wanted} ${unit} will not be told from none.`}{" "}
        {comparison.resolved
          ? ""
          : ways.length
            ? `It takes ${ways.join(", or ")}.`
            : "One charge does not hold the runs it would take by this gauge: read something finer."}
      </p>
    </div>
  );
}

/** What the method will leave: its plus-or-minus by the ledger, its price, and what would make it surer. */
export function YieldPanel({ yielded }: { readonly yielded: Result<PlanYield> }) {
  const system = useSystem();
  if (!yielded.ok)
    return (
      <section className="sheet p-4">
        <h2>What it will leave</h2>
        <p className="mt-1 text-ochre">{yielded.problems[0]!.sentence}</p>
      </section>
    );
  const will = yielded.value;
  const unit = unitOf("energyPerDistance", system);
  const now = will.comparison?.sd ?? will.whPerM?.sd ?? null;
  return (
    <section className="sheet p-4">
      <h2>What it will leave</h2>
      <p className="mt-1 text-2xl leading-tight font-bold">{halfWidthText(will, system)}</p>
      <PriceLine will={will} />
      <Comparison will={will} />
      {now !== null && will.surer.length > 0 ? (
        <>
          <h3 className="mt-4 font-bold">What would make it surer</h3>
          <table className="table mt-1 w-full text-sm">
            <caption className="sr-only">What would make it surer</caption>
            <tbody>
              {will.surer.map(({ what, minutes, sdLeft }) => {
                const [from, to] = writeNarrowing(half(now, system), half(sdLeft, system));
                return (
                  <tr key={what}>
                    <th scope="row">{what}</th>
                    <td className="number">{fixed(minutes, 0)} min</td>
                    <td className="number">
                      ± {from} to ± {to} {unit}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </>
      ) : null}
    </section>
  );
}
