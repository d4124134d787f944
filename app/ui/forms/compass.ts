import { z } from "zod";
import { choice } from "#app/ui/forms/formText";

const COMPASS = ["N", "NE", "E", "SE", "S", "SW", "W", "NW"] as const;

/** Where the wind comes from: a compass point or degrees; empty is undefined. */
export const compassText = choice.transform((text, context) => {
  if (text === undefined) return undefined;
  const point = COMPASS.indexOf(text.toUpperCase() as (typeof COMPASS)[number]);
  if (point >= 0) return point * 45;
  const degrees = Number(text.replace("°", ""));
  if (Number.isFinite(degrees)) return degrees;
  context.addIssue({
    code: "custom",
    message: `“${text}” is no direction: type N, NE, E, SE, S, SW, W, NW, or degrees from 0 to 360.`,
  });
  return z.NEVER;
});
export const compassWritten = (degrees: number | undefined) =>
  degrees === undefined ? "" : degrees % 45 === 0 ? COMPASS[(degrees / 45) % 8]! : String(degrees);
