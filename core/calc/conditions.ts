import { z } from "zod";
import { groundSchema } from "#core/fields";

const number = z.number();
const positive = number.positive("This must be more than zero.");
const climb = number.min(0, "Climb cannot be negative: give metres per mile.").max(600);

/** Conditions a figure is measured under, or brought to. SI units, climb in metres a mile. */
export const conditionsSchema = z.object({
  massKg: positive,
  speedMps: z
    .number({ error: "Give the speed held in metres per second, for example 6.7." })
    .positive("This must be more than zero.")
    .max(30, "That is over 65 mph: speeds are in metres per second."),
  ground: groundSchema.optional(),
  headwindMps: number.optional(),
  gainMPerMi: climb.optional(),
  lossMPerMi: climb.optional(),
  stopsPerMi: number.min(0, "Stops cannot be negative.").optional(),
  tempC: number.min(-60, "Air colder than -60 C is not ridden in.").max(60).optional(),
  altitudeM: number.min(-500).max(9000, "Altitude is in metres, at most 9000.").optional(),
  lightsOn: z.boolean().optional(),
  riderW: number.min(0, "A rider's power cannot be negative.").optional(),
});
