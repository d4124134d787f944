import type { End } from "#core/fields";
import { runOrder, type PlanRecord, type PlanResults } from "#core/planning";
import { formatQuantity, renderUnits, type System } from "#core/base";

/** What a person makes ready, with the plan's own figures in it. */
export function readyLines(
  { plan, setUp }: PlanRecord,
  results: PlanResults,
  system: System,
): readonly string[] {
  const pressure = setUp?.pressurePa;
  return plan.method.ready.map((line) => {
    if (/pressure/i.test(line) && pressure !== undefined)
      return `${line}: ${formatQuantity(pressure, "pressure", system)}`;
    if (/charger green/i.test(line) && results.charge) return `${line}; begun by ${results.charge.startsAt}`;
    return line;
  });
}

/** What is held constant, with its value where the plan knows it. */
export function heldLines(
  { plan, setUp }: PlanRecord,
  results: PlanResults,
  system: System,
): readonly string[] {
  const taken = (start: string) => results.taken.find(({ what }) => what.startsWith(start));
  const speed = taken("speed on");
  return plan.method.hold.map((line) => {
    if (line === "Speed" && speed) return `Speed: ${renderUnits(speed.value, system)}`;
    if (line === "Level" && speed) return `Level: ${speed.what.replace("speed on ", "")}`;
    if (line === "Tyre pressure" && setUp?.pressurePa !== undefined)
      return `Tyre pressure: ${formatQuantity(setUp.pressurePa, "pressure", system)}`;
    if (line === "Load" && setUp) return `Load: ${formatQuantity(setUp.carriedKg, "mass", system, 0)}`;
    if (line === "Lights on or off" && setUp) return `Lights ${setUp.lightsOn ? "on" : "off"}`;
    if (line === "Heart rate" && plan.bpm !== undefined) return `Heart rate: ${plan.bpm}`;
    return line;
  });
}

const ENDS_WHEN: Readonly<Record<End, string>> = {
  cutOff: "the pack cuts off",
  lowPower: "low-power mode holds",
  cannotHoldSpeed: "it no longer holds the set speed",
  gaugeZero: "the gauge is at zero and levels no longer differ",
  byChoice: "the way is done or you choose to stop: for distance, time, daylight or safety",
};

/** Which end counts, as a rule. */
export function endRule({ plan }: PlanRecord): string {
  const ends = plan.method.ends.map((end) => ENDS_WHEN[end]);
  return `It ends when ${ends.join(", or ")}.${ends.length > 1 ? " Note which." : ""}`;
}

/** The runs of a comparison in order; empty for a single ride. */
export function runNames({ plan }: PlanRecord): readonly string[] {
  const { compare } = plan.method;
  return compare ? runOrder(compare.pairs).map((run) => compare[run]) : [];
}
