import { dayText, decimalsOf, type DimensionName, fixed, fromSi, writeIn } from "#core/base";
import type { Swapped } from "#core/compare";
import type { Place } from "#app/services/comparison/row";

/** The standings' figures as a table, behind the chart. */
export function StandingsTable({
  places,
  swaps,
  dimension,
  unit,
}: {
  readonly places: readonly Place[];
  readonly swaps: readonly Swapped[];
  readonly dimension: DimensionName;
  readonly unit: string;
}) {
  return (
    <details className="mt-4">
      <summary className="cursor-pointer text-spruce underline underline-offset-3">
        The same as a table, with the chances of each order
      </summary>
      <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Standings as a table">
        <table className="table mt-2 w-full min-w-xl text-sm">
          <caption className="sr-only">Standings with their chances</caption>
          <thead>
            <tr>
              <th scope="col" className="number">
                Place
              </th>
              <th scope="col" className="number">
                Possible places
              </th>
              <th scope="col">Bike</th>
              <th scope="col">Set-up</th>
              <th scope="col">Test</th>
              <th scope="col">Day</th>
              <th scope="col" className="number">
                Best, {unit}
              </th>
              <th scope="col" className="number">
                Paper, {unit}
              </th>
              <th scope="col" className="number">
                Truly behind the next, of 100
              </th>
            </tr>
          </thead>
          <tbody>
            {places.map(({ place, possible, row }) => {
              const { value, spread } = writeIn(row.value, dimension, unit);
              const swap = swaps.find(({ upper }) => upper === place);
              return (
                <tr key={row.id}>
                  <th scope="row" className="number">
                    {place}
                  </th>
                  <td className="number">
                    {possible.from === possible.to ? place : `${possible.from} to ${possible.to}`}
                  </td>
                  <td>{row.bike}</td>
                  <td>{row.setUp}</td>
                  <td>
                    {row.title}, {row.drive}
                  </td>
                  <td className="whitespace-nowrap">{dayText(row.day)}</td>
                  <td className="number">
                    {value} {spread}
                  </td>
                  <td className="number">
                    {row.plain === null
                      ? "none"
                      : fixed(fromSi(row.plain, dimension, unit), decimalsOf(dimension, unit))}
                  </td>
                  <td className="number">
                    {swap ? fixed(100 * swap.chance, 0) : place < places.length ? "under 10" : ""}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </details>
  );
}
