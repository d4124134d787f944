import { lessShort, type JointPair, type SideNotes, type SidesOf } from "#core/compare";
import { fixed, formatQuantity, formatUncertain, type System } from "#core/base";
import { useSystem } from "#ui/system";
import { useSigned } from "./difference";
import type { PairTest } from "./pairPanel";

/** "14 mph, 128 bpm, 12 °C", as far as it was noted. */
const noteText = ({ speedMps, bpm, airTempC }: SideNotes, system: System) =>
  [
    speedMps === null ? "" : `${formatQuantity(speedMps, "speed", system, 1)} by the clock`,
    bpm === null ? "" : `${fixed(bpm, 0)} bpm`,
    airTempC === null ? "" : formatQuantity(airTempC, "temperature", system, 0),
  ]
    .filter(Boolean)
    .join(", ");

/** A and B section by section, and over all. */
export function SectionsTable({
  pair,
  tests,
}: {
  readonly pair: JointPair;
  readonly tests: readonly PairTest[];
}) {
  const system = useSystem();
  const signed = useSigned();
  const row = (sides: SidesOf, name: string) => (
    <tr key={name}>
      <th scope="row" className={sides === pair.whole ? "font-bold" : ""}>
        {name}
      </th>
      <td className="number">{formatQuantity(sides.metres.A, "distance", system)}</td>
      <td className="number">
        {formatUncertain(sides.a, "energyPerDistance", system)}
        <span className="block text-quiet">{noteText(sides.noted.A, system)}</span>
      </td>
      <td className="number">{formatQuantity(sides.metres.B, "distance", system)}</td>
      <td className="number">
        {formatUncertain(sides.b, "energyPerDistance", system)}
        <span className="block text-quiet">{noteText(sides.noted.B, system)}</span>
      </td>
      <td className="number">{signed(sides.difference)}</td>
      <td>{lessShort(sides.chanceA)}</td>
    </tr>
  );
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="A and B by section">
      <table className="table w-full min-w-xl text-sm">
        <caption className="sr-only">A and B, section by section</caption>
        <thead>
          <tr>
            <th scope="col">Section</th>
            <th scope="col" className="number">
              ridden as A
            </th>
            <th scope="col" className="number">
              A
            </th>
            <th scope="col" className="number">
              ridden as B
            </th>
            <th scope="col" className="number">
              B
            </th>
            <th scope="col" className="number">
              A less B
            </th>
            <th scope="col">Odds</th>
          </tr>
        </thead>
        <tbody>
          {pair.sections.map((sides) => row(sides, sides.section))}
          {row(pair.whole, tests.length > 2 || pair.sections.length ? "all runs" : "the whole")}
        </tbody>
      </table>
    </div>
  );
}
