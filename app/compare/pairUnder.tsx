import { lessText, type Why } from "#core/compare";
import { formatUncertain, fromSi, fixed, unitOf, type Estimate } from "#core/base";
import { useSpoken, useSystem } from "#ui/system";
import { SettleList } from "./settleList";

/** Both sides under a reference and their difference, Wh per metre, with the chance that A uses less. */
export interface Under {
  readonly a: Estimate;
  readonly b: Estimate;
  readonly difference: Estimate;
  readonly chanceA: number;
}

interface PairUnderProps {
  readonly name: string;
  readonly bikes: readonly [string, string];
  /** Null where one cannot be brought there. */
  readonly under: Under | null;
  readonly why: readonly Why[];
  readonly notBrought: readonly string[];
  readonly settles: Parameters<typeof SettleList>[0]["settles"];
}

const WHY_WORDS: Readonly<Record<Why["what"], string>> = {
  weight: "weight",
  rolling: "tyres and rolling",
  drag: "air",
  "motor and drive": "motor and drive",
  assist: "where the assist stops",
  other: "what the road load does not explain",
};

/** What of the bikes makes the difference, with its share in the display's unit. */
export function WhyUnder({ why }: { readonly why: readonly Why[] }) {
  const unit = unitOf("energyPerDistance", useSystem());
  if (why.length === 0) return null;
  const signed = (whPerM: number) =>
    `${whPerM < 0 ? "−" : "+"}${fixed(Math.abs(fromSi(whPerM, "energyPerDistance", unit)), 1)}`;
  return (
    <p className="mt-2 text-sm">
      Why: {why.map(({ what, whPerM }) => `${WHY_WORDS[what]} ${signed(whPerM)}`).join(", ")} {unit}.
    </p>
  );
}

/** A pair under a reference, and what would make it surer. */
export function PairUnder({ name, bikes, under, why, notBrought, settles }: PairUnderProps) {
  const system = useSystem();
  const say = useSpoken();
  return (
    <section>
      <h2 className="mb-1">Under {name}</h2>
      {under ? (
        <>
          <p>
            {formatUncertain(under.a, "energyPerDistance", system)} against{" "}
            {formatUncertain(under.b, "energyPerDistance", system)}: a difference of{" "}
            {formatUncertain(under.difference, "energyPerDistance", system, true)}.{" "}
            {lessText(under.chanceA, ...bikes)}
          </p>
          <WhyUnder why={why} />
          <h3 className="mt-3 mb-1 font-bold">What would make it surer</h3>
          <SettleList sd={under.difference.sd} dimension="energyPerDistance" settles={settles} />
        </>
      ) : (
        <ul>
          {notBrought.map((sentence) => (
            <li key={sentence}>{say(sentence)}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
