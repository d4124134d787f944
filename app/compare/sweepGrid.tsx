import { GROUNDS } from "#core/log";
import { unitOf } from "#core/quantities";
import { DIRECTIONS } from "#core/records";
import { Choose, Line } from "#ui/lines";
import { useSystem } from "#ui/system";

interface SweepGridProps {
  readonly rows: number;
  readonly levels: readonly string[];
  readonly onMore: () => void;
}

const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));

/** The grid to fill: a row for each level, ground and way. */
export function SweepGrid({ rows, levels, onMore }: SweepGridProps) {
  const system = useSystem();
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="The grid">
      <table className="w-full min-w-[34rem] [&_select]:px-1.5 [&_select]:text-sm">
        <thead>
          <tr>
            <th>Level</th>
            <th>Ground</th>
            <th>Way</th>
            <th>Speed, {unitOf("speed", system)}</th>
            <th>Amps</th>
            <th>Volts</th>
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: rows }, (_, i) => (
            <tr key={i} className="align-top">
              <td className="w-28 py-1 pr-2">
                <Choose
                  name={`rows.${i}.level`}
                  label={`Level, row ${i + 1}`}
                  bare
                  options={same(["", ...levels])}
                />
              </td>
              <td className="py-1 pr-2">
                <Choose
                  name={`rows.${i}.ground`}
                  label={`Ground, row ${i + 1}`}
                  bare
                  options={same(GROUNDS)}
                />
              </td>
              <td className="py-1 pr-2">
                <Choose
                  name={`rows.${i}.direction`}
                  label={`Way, row ${i + 1}`}
                  bare
                  options={same(DIRECTIONS)}
                />
              </td>
              <td className="py-1 pr-2">
                <Line name={`rows.${i}.speed`} label={`Speed, row ${i + 1}`} bare inputMode="decimal" />
              </td>
              <td className="py-1 pr-2">
                <Line name={`rows.${i}.amps`} label={`Amps, row ${i + 1}`} bare />
              </td>
              <td className="w-20 py-1">
                <Line name={`rows.${i}.volts`} label={`Volts, row ${i + 1}`} bare inputMode="decimal" />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button type="button" className="button button-plain mt-1" onClick={onMore}>
        one more row
      </button>
    </div>
  );
}
