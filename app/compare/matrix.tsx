import { writeUncertain, type Estimate } from "#core/base";
import { useSystem } from "#ui/system";

interface MatrixProps {
  readonly cells: readonly {
    readonly level: string;
    readonly ground: string;
    /** Null: ridden, with too few readings to tell. */
    readonly whPerM: Estimate | null;
  }[];
  /** The bike's own, least first. */
  readonly levels: readonly string[];
}

/** What each level takes on each ground. */
export function Matrix({ cells, levels: own }: MatrixProps) {
  const system = useSystem();
  const grounds = [...new Set(cells.map(({ ground }) => ground))];
  const levels = [...new Set([...own, ...cells.map(({ level }) => level)])];
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Levels by grounds">
      <table className="table w-full text-sm">
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
                const cell = cells.find((each) => each.level === level && each.ground === ground);
                return (
                  <td key={ground} className="number">
                    {!cell ? (
                      <span className="text-quiet">not ridden</span>
                    ) : cell.whPerM ? (
                      <>
                        <b>{writeUncertain(cell.whPerM, "energyPerDistance", system).value}</b>{" "}
                        <span className="text-quiet">
                          {writeUncertain(cell.whPerM, "energyPerDistance", system).spread}
                        </span>
                      </>
                    ) : (
                      <i className="text-ochre">too few readings here</i>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
