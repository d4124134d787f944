import type { UsableEnergy } from "#core/battery";
import { fixed, halfWidth95, unitToken, type Estimate } from "#core/base";

/** The arithmetic behind the ledger's lines, in words with their numbers; a plus-or-minus is 95 %. */
const wh = (value: Estimate) => `${fixed(value.mean, 0)} ± ${fixed(halfWidth95(value), 0)} Wh`;
const share = (value: Estimate) => `${fixed(value.mean * 100, 1)} ± ${fixed(halfWidth95(value) * 100, 1)} %`;
const perDistance = (whPerM: number, decimals = 1) => unitToken(whPerM, "energyPerDistance", decimals);

interface BestParts {
  readonly capacity: Estimate;
  readonly fraction: Estimate;
  readonly energyWh: Estimate;
  readonly distanceM: number;
  readonly whPerM: Estimate;
  readonly relativeSd: number;
  readonly wide: number;
}

export function howBest({ capacity, fraction, energyWh, distanceM, whPerM, relativeSd, wide }: BestParts) {
  const byDistance = halfWidth95({ mean: whPerM.mean, sd: whPerM.mean * relativeSd });
  const byLedger = Math.sqrt(Math.max(0, halfWidth95(whPerM) ** 2 - byDistance ** 2));
  return [
    ...howEnergy(capacity, fraction, energyWh),
    `${fixed(energyWh.mean, 0)} Wh over ${unitToken(distanceM, "distance", 1)} is ${perDistance(whPerM.mean, 2)}.`,
    `Of its plus-or-minus, ${perDistance(byLedger, 2)} is the energy's and ${perDistance(byDistance, 2)} the distance's (as squares, for they err by themselves).`,
    ...(wide > 1.001
      ? [
          `The readings disagree more than their errors allow, so the energy's part was widened ${fixed(wide, 2)} times.`,
        ]
      : []),
  ];
}

export function howEnergy(capacity: Estimate, fraction: Estimate, energyWh: Estimate): readonly string[] {
  return [
    `The readings put ${share(fraction)} of the pack as used, and the pack at ${wh(capacity)}.`,
    `Their product is ${wh(energyWh)}; both come from the same readings, so their errors do not simply add.`,
  ];
}

export function howCapacity(usable: UsableEnergy, capacity: Estimate): readonly string[] {
  return [
    `Before the ride: ${wh(usable)}, ${usable.from === "measured" ? "as measured, less what a ride's currents leave in it," : `${fixed(usable.share * 100, 0)} % of ${fixed(usable.labelWh, 0)} Wh`} at the pack's temperature.`,
    `With this ride's readings: ${wh(capacity)}.`,
  ];
}

/** @param portion of the pack to spend */
export function howRange(distanceM: number, portion: number, fraction: Estimate): readonly string[] {
  return [
    `${unitToken(distanceM, "distance", 1)} took ${share(fraction)} of the pack; ${fixed(portion * 100, 0)} % of it takes ${fixed(portion / fraction.mean, 2)} times as far.`,
    "The pack's size cancels: the share used, the distance and how the road ahead may differ carry the error.",
  ];
}
