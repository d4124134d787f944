import type { Bridge } from "#core/compare";
import { fixed, formatBare, fromSi, halfWidth95, unitOf } from "#core/base";
import type { Factor } from "#core/bike";
import { useSpoken, useSystem } from "#ui/system";

interface WaterfallProps {
  readonly bridge: Bridge;
  readonly reference: string;
}

/** What each factor is in words: what the reference has of it that the ride had not. */
export const FACTOR_WORDS: Readonly<Record<Factor | "day", string>> = {
  day: "this day's own",
  mass: "weight of rider and load",
  wind: "wind",
  climb: "climb",
  air: "temperature, altitude",
  speed: "speed",
  ground: "ground",
  rider: "what the rider puts in",
  stops: "stops",
  lights: "lights",
};

/** Share of the widest sum that the drawing leaves free. */
const ROOM = 1.05;

/** Bars from the measured figure to the reference, each from where the last one ended; a table that is drawn. */
export function Waterfall({ bridge, reference }: WaterfallProps) {
  const system = useSystem();
  const say = useSpoken();
  const unit = unitOf("energyPerDistance", system);
  const { measured, bars, under } = bridge;
  const ends = bars.reduce<readonly number[]>(
    (sums, bar) => [...sums, sums.at(-1)! + bar.whPerM.mean],
    [measured.mean],
  );
  const most = ROOM * Math.max(...ends, under.whPerM.mean);
  const percent = (whPerM: number) => `${(100 * whPerM) / most}%`;
  const rows = [
    {
      name: "measured",
      from: 0,
      to: measured.mean,
      text: formatBare(measured.mean, "energyPerDistance", system, 2),
      error: formatBare(halfWidth95(measured), "energyPerDistance", system, 2),
      sentence: "",
      sum: true,
    },
    ...bars.map(({ factor, whPerM, sentence }, i) => ({
      name: FACTOR_WORDS[factor],
      from: ends[i]!,
      to: ends[i + 1]!,
      text: `${whPerM.mean < 0 ? "−" : "+"}${fixed(Math.abs(fromSi(whPerM.mean, "energyPerDistance", unit)), 2)}`,
      error: formatBare(halfWidth95(whPerM), "energyPerDistance", system, 2),
      sentence: say(sentence),
      sum: false,
    })),
    {
      name: `under ${reference}`,
      from: 0,
      to: under.whPerM.mean,
      text: formatBare(under.whPerM.mean, "energyPerDistance", system, 2),
      error: formatBare(halfWidth95(under.whPerM), "energyPerDistance", system, 2),
      sentence: "",
      sum: true,
    },
  ];
  return (
    <table className="table w-full">
      <caption className="sr-only">From the measured figure to the reference, step by step</caption>
      <thead>
        <tr>
          <th scope="col">What differs</th>
          <th scope="col" className="number">
            {unit}
          </th>
          <th scope="col" className="number">
            ±
          </th>
          <th scope="col" className="hidden w-2/5 sm:table-cell">
            <span className="sr-only">Drawn</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, from, to, text, error, sentence, sum }) => (
          <tr key={name}>
            <th scope="row">
              <span className={sum ? "font-bold" : ""}>{name}</span>
              {sentence ? <span className="block text-sm text-quiet">{sentence}</span> : null}
            </th>
            <td className={`number ${sum ? "font-bold" : ""}`}>{text}</td>
            <td className="number text-quiet">{error}</td>
            <td aria-hidden className="hidden sm:table-cell">
              <div className="relative h-5">
                <div
                  className={`absolute inset-y-0 ${sum ? "bg-spruce" : to < from ? "border border-spruce bg-tint" : "border border-ochre bg-ochre-fill/30"}`}
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
