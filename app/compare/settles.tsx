import type { JointPair } from "#core/compare";
import { certaintyOf, chanceBelow, fixed, formatUncertain } from "#core/base";
import { useSystem } from "#ui/system";

/** What would decide a difference that is not sure. */
export function Settles({ pair }: { readonly pair: JointPair }) {
  const system = useSystem();
  const { needed, order, whole, sdMetered } = pair;
  const runs = order.filter((side) => side === "A").length;
  const times = (sd: number) =>
    formatUncertain({ mean: whole.difference.mean, sd }, "energyPerDistance", system, true);
  const isSure = certaintyOf(whole.chanceA) === "sure";
  const says = isSure
    ? []
    : [
        ...(needed.runs === null
          ? []
          : [
              `${needed.runs} runs of each like these, instead of ${runs}, would make sure of a difference of this size.`,
            ]),
        ...(needed.length === null || needed.length <= 1
          ? []
          : [`So would a way ${fixed(needed.length, 1)} times as long.`]),
        ...(needed.runs === null && needed.length === null
          ? ["No number of such runs would, within reason: the two are as good as alike."]
          : []),
      ];
  const metered =
    sdMetered !== null && sdMetered < 0.9 * whole.difference.sd
      ? [
          `With a watt-hour meter on every run: ${times(sdMetered)}${!isSure && certaintyOf(chanceBelow({ mean: whole.difference.mean, sd: sdMetered }, 0)) === "sure" ? ", which would decide it" : ""}.`,
        ]
      : [];
  const all = [...says, ...metered];
  return all.length ? (
    <ul className="list-disc pl-5">
      {all.map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
    </ul>
  ) : (
    <p className="text-quiet">It is sure, as far as these runs go.</p>
  );
}
