import type { Bridge } from "#core/compare";
import { formatBare, fromSi, unitOf } from "#core/quantities";
import type { Factor } from "#core/roadload";
import { useSystem } from "#ui/system";

interface WaterfallProps {
  readonly bridge: Bridge;
  readonly reference: string;
  readonly words: Readonly<Record<Factor, string>>;
}

/** Share of the widest sum that the drawing leaves free. */
const ROOM = 1.05;

/** Bars from the measured figure to the reference, each from where the last one ended; a table that is drawn. */
export function Waterfall({ bridge, reference, words }: WaterfallProps) {
  const system = useSystem();
  const unit = unitOf("energyPerDistance", system);
  const { measured, bars, under } = bridge;
  const ends = bars.reduce<readonly number[]>(
    (sums, bar) => [...sums, sums.at(-1)! + bar.whPerM],
    [measured.mean],
  );
  const most = ROOM * Math.max(...ends, under.whPerM.mean);
  const percent = (whPerM: number) => `${(100 * whPerM) / most}%`;
  const rows = [
    {
      name: "measured",
      from: 0,
      to: measured.mean,
      text: formatBare(measured.mean, "energyPerDistance", system),
      sum: true,
    },
    ...bars.map(({ factor, whPerM }, i) => ({
      name: words[factor],
      from: ends[i]!,
      to: ends[i + 1]!,
      text: `${whPerM < 0 ? "−" : "+"}${Math.abs(fromSi(whPerM, "energyPerDistance", unit)).toFixed(2)}`,
      sum: false,
    })),
    {
      name: `under ${reference}`,
      from: 0,
      to: under.whPerM.mean,
      text: formatBare(under.whPerM.mean, "energyPerDistance", system),
      sum: true,
    },
  ];
  return (
    <table className="table w-full">
      <thead>
        <tr>
          <th>What differs</th>
          <th className="number">{unit}</th>
          <th className="w-1/2">
            <span className="sr-only">Drawn</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, from, to, text, sum }) => (
          <tr key={name}>
            <td className={sum ? "font-bold" : ""}>{name}</td>
            <td className={`number ${sum ? "font-bold" : ""}`}>{text}</td>
            <td aria-hidden>
              <div className="relative h-5">
                <div
                  className={`absolute inset-y-0 ${sum ? "bg-spruce" : to < from ? "border border-spruce bg-tint" : "border border-ochre bg-sheet"}`}
                  style={{ left: percent(Math.min(from, to)), width: percent(Math.abs(to - from)) }}
                />
              </div>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
