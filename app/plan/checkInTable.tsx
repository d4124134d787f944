import type { CheckIn } from "#core/planning";
import { formatBare, unitOf } from "#core/base";
import { useSystem } from "#ui/system";
import { barsText, distanceSpan, goOnText, percentText, timeText, voltsText } from "./spans";

interface CheckInTableProps {
  readonly checkIns: readonly CheckIn[];
  /** Empty cells to write what was read. */
  readonly toWrite?: boolean;
}

/** What to expect at each check-in, with its span; on paper with room to write. */
export function CheckInTable({ checkIns, toWrite = false }: CheckInTableProps) {
  const system = useSystem();
  const columns = [
    { name: "Time", read: (row: CheckIn) => timeText(row.expected) },
    { name: "Percent", read: (row: CheckIn) => percentText(row.expected) },
    { name: "Bars", read: (row: CheckIn) => barsText(row.expected) },
    { name: "Rest volts", read: (row: CheckIn) => voltsText(row.expected) },
  ].filter(({ read }) => checkIns.some((row) => read(row) !== null));
  const goOn = checkIns.some((row) => goOnText(row) !== "");
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Check-ins">
      <table className={`table check-ins w-full ${toWrite ? "to-write" : ""}`}>
        <caption className="sr-only">
          Check-ins, with what is expected at each and the span of 95 of 100 such days
        </caption>
        <thead>
          <tr>
            <th scope="col" className="number">
              {unitOf("distance", system)}
            </th>
            <th scope="col">Where</th>
            {columns.map(({ name }) => (
              <th scope="col" key={name} className="number">
                {name}
              </th>
            ))}
            {goOn ? (
              <th scope="col" className="number">
                Go on above
              </th>
            ) : null}
            {toWrite ? (
              <th scope="col" className="w-1/6">
                Read
              </th>
            ) : null}
          </tr>
        </thead>
        <tbody>
          {checkIns.map((row) => (
            <tr key={row.expected.atM}>
              <th scope="row" className="number">
                <span className={row.where ? "pencil" : "font-bold"}>
                  {formatBare(row.expected.atM, "distance", system)}
                </span>
                {row.where ? (
                  <div className="span pencil text-sm">{distanceSpan(row.where, system).span}</div>
                ) : null}
              </th>
              <td>{row.what}</td>
              {columns.map(({ name, read }) => {
                const text = read(row);
                return (
                  <td key={name} className="number pencil">
                    {text?.expected}
                    <div className="span text-sm">{text?.span}</div>
                  </td>
                );
              })}
              {goOn ? <td className="number">{goOnText(row)}</td> : null}
              {toWrite ? <td className="border-l border-rule" /> : null}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
