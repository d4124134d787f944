import { href, Link } from "react-router";
import type { PlanResults } from "#core/planning";
import { fixed, fromSi, Z_95, unitOf, writeNarrowing } from "#core/base";
import { useSystem } from "#ui/system";

/** What most of a forecast's spread comes from, and what would settle it. */
export function SpreadLine({ results: { unknowns } }: { readonly results: PlanResults }) {
  if (unknowns.length === 0) return null;
  return (
    <p className="mt-1 text-sm text-quiet">
      Most of its spread:{" "}
      {unknowns
        .map(({ name, share, settledBy }) => `${name}, ${fixed(100 * share, 0)} % (${settledBy})`)
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
              <Link to={href("/strip/:testId/conditions", { testId })} className="underline">
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
