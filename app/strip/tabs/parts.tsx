import { formatQuantity } from "#core/base";
import { Figure } from "#ui/figure";
import { useSystem } from "#ui/system";
import type { StripResults } from "#app/services/strip/view";

/** Level by ground: the energy each part of the ride took over its miles, with empty and untold cells said as such. */
export function Parts({ results }: { readonly results: StripResults }) {
  const system = useSystem();
  const { parts } = results;
  const levels = [...new Set(parts.map(({ level }) => level))];
  const grounds = [...new Set(parts.map(({ ground }) => ground))];
  return (
    <div className="grid max-w-3xl gap-4">
      <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Level by ground">
        <table className="table w-full">
          <caption className="sr-only">Wh for the distance, by level and ground</caption>
          <thead>
            <tr>
              <th scope="col">Level</th>
              {grounds.map((ground) => (
                <th scope="col" key={ground} className="number">
                  {ground}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {levels.map((level) => (
              <tr key={level}>
                <th scope="row">{level}</th>
                {grounds.map((ground) => {
                  const part = parts.find((each) => each.level === level && each.ground === ground);
                  return (
                    <td key={ground} className="number">
                      {!part ? (
                        <span className="text-quiet">not ridden</span>
                      ) : (
                        <>
                          {part.whPerM ? (
                            <Figure value={part.whPerM} dimension="energyPerDistance" />
                          ) : (
                            <span className="pencil">too few readings here</span>
                          )}
                          <br />
                          <span className="text-sm text-quiet">
                            over {formatQuantity(part.distanceM, "distance", system)}
                          </span>
                        </>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {results.climbM === null ? null : (
        <p>
          The climb is charged to the hill, not to the level: a part shows what its miles took besides, so the
          parts lie below the whole.
        </p>
      )}
      <p className="text-sm text-quiet">
        There are “too few readings” where they hardly narrow what the miles of a part cost: read the gauge at
        each change of level or ground, and there will be enough.
      </p>
    </div>
  );
}
