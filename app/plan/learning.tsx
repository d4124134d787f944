import { Link } from "react-router";
import type { PlanResults } from "#core/planning";
import { fixed, fromSi, Z_95, unitOf, writeNarrowing } from "#core/base";
import { useSystem } from "#ui/system";

/** What a field of the plan, or a test, would settle. */
const SETTLED_BY: Readonly<Record<string, string>> = {
  rider: "type the watts, or a heart rate on the rider's line",
  "what an effort means": "type the watts, or ride with a heart-rate line",
  wind: "type the wind and where it comes from",
  speed: "type the speed held",
  stops: "type the stops a mile",
  weight: "weigh bike, rider and load",
};
/** Parts of the doubt that are named: as many, and none smaller. */
const MOST = 3;
const LEAST = 0.1;

/** What most of a forecast's spread comes from, and what would settle it. */
export function SpreadLine({ results: { unknowns } }: { readonly results: PlanResults }) {
  const named = unknowns.filter(({ share }) => share >= LEAST).slice(0, MOST);
  if (named.length === 0) return null;
  return (
    <p className="mt-1 text-sm text-quiet">
      Most of its spread:{" "}
      {named
        .map(({ name, share }) => {
          const by = SETTLED_BY[name] ?? "a test of this bike tells more";
          return `${name}, ${fixed(100 * share, 0)} % (${by})`;
        })
        .join("; ")}
      .
    </p>
  );
}

/** What could still be told of earlier tests, and how much surer it would make the forecast. */
export function LearningLines({ results }: { readonly results: PlanResults }) {
  const system = useSystem();
  const { learning, whPerM } = results;
  const unit = unitOf("energyPerDistance", system);
  const half = (sd: number) => fromSi(Z_95 * sd, "energyPerDistance", unit);
  if (learning.length === 0) return null;
  return (
    <>
      <p className="mt-2 text-sm">What is still untold of earlier tests would narrow it:</p>
      <ul className="list-disc pl-5 text-sm">
        {learning.map(({ what, testId, test, sdLeft }) => {
          const [from, to] = writeNarrowing(half(whPerM.sd), half(sdLeft));
          return (
            <li key={`${testId}/${what}`}>
              <Link to={`/strip/${testId}/conditions`} className="underline">
                {test}
              </Link>
              : {what}: ± {from} becomes ± {to} {unit}
            </li>
          );
        })}
      </ul>
    </>
  );
}
