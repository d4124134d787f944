import { Link } from "react-router";
import { fixed, plusOrMinus } from "#core/quantities";
import type { RoadFit } from "#core/roadload";
import { useSpoken } from "#ui/system";

/** What the bike's own sweeps and climbs say of its road load. */
export function RoadLoad({ fit, bikeId }: { readonly fit: RoadFit | null; readonly bikeId: string }) {
  const say = useSpoken();
  if (!fit)
    return (
      <p className="text-quiet">
        As its kind lets expect. A <Link to={`/compare/sweeps/new?bike=${bikeId}`}>sweep</Link> or{" "}
        <Link to={`/compare/climbs/new?bike=${bikeId}`}>climb</Link> of its own would fit it.
      </p>
    );
  return (
    <>
      <table className="table w-full text-sm">
        <thead>
          <tr>
            <th>What</th>
            <th className="number">Fitted</th>
            <th className="number">Assumed</th>
            <th className="number">Rows</th>
          </tr>
        </thead>
        <tbody>
          {fit.parameters.map(({ name, value, assumed, rows }) => {
            const digits = value.mean < 0.1 ? 4 : 2;
            return (
              <tr key={name}>
                <td>{name}</td>
                <td className={`number ${rows ? "" : "pencil"}`}>
                  {fixed(value.mean, digits)} ± {fixed(plusOrMinus(value), digits)}
                </td>
                <td className="number text-quiet">
                  {fixed(assumed.mean, digits)} ± {fixed(plusOrMinus(assumed), digits)}
                </td>
                <td className="number">{rows}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <ul className="mt-2 list-disc pl-5 text-sm">
        {fit.words.map((sentence) => (
          <li key={sentence}>{say(sentence)}</li>
        ))}
      </ul>
    </>
  );
}
