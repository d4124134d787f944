import { formatUncertain, RESOLVED_SDS, type Estimate } from "#core/base";
import { useSpoken, useSystem } from "#ui/system";
import { SettleList } from "./settleList";

interface PairUnderProps {
  readonly name: string;
  /** Both sides and their difference, Wh per metre; null where one cannot be brought there. */
  readonly under: { readonly a: Estimate; readonly b: Estimate; readonly difference: Estimate } | null;
  readonly notBrought: readonly string[];
  readonly settles: Parameters<typeof SettleList>[0]["settles"];
}

/** A pair under a reference, and what would make it surer. */
export function PairUnder({ name, under, notBrought, settles }: PairUnderProps) {
  const system = useSystem();
  const say = useSpoken();
  const resolved = under !== null && Math.abs(under.difference.mean) > RESOLVED_SDS * under.difference.sd;
  return (
    <section>
      <h2 className="mb-1">Under {name}</h2>
      {under ? (
        <p>
          {formatUncertain(under.a, "energyPerDistance", system)} against{" "}
          {formatUncertain(under.b, "energyPerDistance", system)}: a difference of{" "}
          {formatUncertain(under.difference, "energyPerDistance", system)},{" "}
          {resolved ? "resolved." : "not resolved. What would make it surer:"}
        </p>
      ) : (
        <ul>
          {notBrought.map((sentence) => (
            <li key={sentence}>{say(sentence)}</li>
          ))}
        </ul>
      )}
      {under && !resolved ? (
        <SettleList sd={under.difference.sd} dimension="energyPerDistance" settles={settles} />
      ) : null}
    </section>
  );
}
