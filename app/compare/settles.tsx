import type { JointPair } from "#core/compare";
import { fixed, formatUncertain } from "#core/base";
import { useSystem } from "#ui/system";

/** What would settle a difference that is not resolved, or has settled it. */
export function Settles({ pair }: { readonly pair: JointPair }) {
  const system = useSystem();
  const { needed, order, whole, sdMetered } = pair;
  const runs = order.filter((side) => side === "A").length;
  const times = (sd: number) =>
    formatUncertain({ mean: whole.difference.mean, sd }, "energyPerDistance", system);
  const says = whole.resolved
    ? []
    : [
        ...(needed.runs === null
          ? []
          : [
              `${needed.runs} runs of each like these, instead of ${runs}, would resolve a difference of this size.`,
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
          `With a watt-hour meter on every run: ${times(sdMetered)}${!whole.resolved && Math.abs(whole.difference.mean) > 2 * sdMetered ? ", which would resolve it" : ""}.`,
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
    <p className="text-quiet">It is settled, as far as these runs go.</p>
  );
}
