import { z } from "zod";

/** Grounds, each drawn with a hatch and a letter of its own. */
export const GROUNDS = ["asphalt", "brick", "fine gravel", "loose gravel", "grass", "mud", "snow"] as const;
export const groundSchema = z.enum(GROUNDS, { error: `Ground is one of ${GROUNDS.join(", ")}.` });
export type Ground = z.infer<typeof groundSchema>;

/** What else people call a ground. */
const ALSO_CALLED: Readonly<Partial<Record<Ground, string>>> = {
  asphalt: "tar tarmac road paved",
  brick: "bricks cobble cobbles cobbled",
  "fine gravel": "fine gravel",
  "loose gravel": "loose dirt",
};

/** Grounds by every word they go by, their own names with a hyphen as well. */
export const GROUND_WORDS: ReadonlyMap<string, Ground> = new Map(
  GROUNDS.flatMap((ground) =>
    [ground, ground.replace(" ", "-"), ...(ALSO_CALLED[ground]?.split(" ") ?? [])].map(
      (word) => [word, ground] as const,
    ),
  ),
);

/** Two set-ups, riders, tyres or levels put against each other in one log. */
export const SIDES = ["A", "B"] as const;
export type Side = (typeof SIDES)[number];

/** How a test ended. All but the last close the range; "by choice" leaves a projection. */
export const ENDS = ["cutOff", "lowPower", "cannotHoldSpeed", "gaugeZero", "byChoice"] as const;
export type End = (typeof ENDS)[number];
export const END_NAMES: Readonly<Record<End, string>> = {
  cutOff: "the pack cut off",
  lowPower: "low-power mode held",
  cannotHoldSpeed: "it could not hold the set speed",
  gaugeZero: "gauge at zero, no difference between levels",
  byChoice: "stopped by choice",
};
