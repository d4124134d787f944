import { dayText } from "#app/ui/testLine";
import { decimalsOf, fixed, fromSi, writeIn, type DimensionName } from "#core/quantities";
import type { Place } from "#app/services/comparison/row";

/** The standings' figures as a table, behind the chart. */
export function StandingsTable({
  places,
  dimension,
  unit,
}: {
  readonly places: readonly Place[];
  readonly dimension: DimensionName;
  readonly unit: string;
}) {
  return (
    <details className="mt-4">
      <summary className="cursor-pointer text-spruce underline underline-offset-3">
        The same as a table
      </summary>
      <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Standings as a table">
        <table className="table mt-2 w-full min-w-xl text-sm">
          <thead>
            <tr>
              <th className="number">Place</th>
              <th>Bike</th>
              <th>Set-up</th>
              <th>Test</th>
              <th>Day</th>
              <th className="number">Best, {unit}</th>
              <th className="number">Plain, {unit}</th>
            </tr>
          </thead>
          <tbody>
            {places.map(({ place, row }) => {
              const { value, error } = writeIn(row.value, dimension, unit);
              return (
                <tr key={row.id}>
                  <td className="number">{place}</td>
                  <td>{row.bike}</td>
                  <td>{row.setUp}</td>
                  <td>
                    {row.title}, {row.drive}
                  </td>
                  <td className="whitespace-nowrap">{dayText(row.day)}</td>
                  <td className="number">
                    {value} ± {error}
                  </td>
                  <td className="number">
                    {row.plain === null
                      ? "none"
                      : fixed(fromSi(row.plain, dimension, unit), decimalsOf(dimension, unit))}
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
