import { formatBare, formatQuantity, spanOf, type Estimate } from "#core/base";
import { useSystem } from "#ui/system";
import type { CellRanges } from "#app/services/comparison/bike.server";

/** A span to be read out: "31 to 36". */
function useSpan() {
  const system = useSystem();
  return (value: Estimate) => {
    const { low, high } = spanOf(value);
    return [low, high].map((metres) => formatBare(metres, "distance", system, 0)).join(" to ");
  };
}

/** Range by level, ground and season, with spans a reviewer can read out. */
export function Ranges({
  ranges,
  levels,
}: {
  readonly ranges: readonly CellRanges[];
  readonly levels: readonly string[];
}) {
  const span = useSpan();
  const rank = (level: string) => (levels.includes(level) ? levels.indexOf(level) : levels.length);
  const sorted = [...ranges].sort((a, b) => rank(a.level) - rank(b.level));
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Range by season">
      <table className="table w-full min-w-[30rem] text-sm">
        <caption className="sr-only">Range by level, ground and season</caption>
        <thead>
          <tr>
            <th scope="col">Level and ground</th>
            {ranges[0]!.seasons.map(({ name, tempC }) => (
              <th scope="col" key={name} className="number">
                {name}, <Temp c={tempC} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sorted.map(({ level, ground, seasons }) => (
            <tr key={`${level}/${ground}`}>
              <th scope="row">
                {level}, {ground}
              </th>
              {seasons.map(({ name, total, fullPower, withReserve }) => (
                <td key={name} className="number">
                  <b className="text-base">{span(total)}</b>
                  <span className="block text-quiet">
                    {span(fullPower)}; {span(withReserve)}
                  </span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Temp({ c }: { readonly c: number }) {
  return formatQuantity(c, "temperature", useSystem());
}
