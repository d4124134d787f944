import { z } from "zod";
import { groundSchema } from "#core/fields";
import { named, number } from "./fields.ts";

/** Conditions that bikes are brought to, as a person sets them. SI units; climb in metres a mile. */
export const referenceSchema = z.object({
  name: named("reference"),
  carriedKg: number(30, 400, "Rider and load weigh 30 to 400 kg together, for example 100 kg."),
  speedMps: number(1, 20, "Type the speed held, for example 15 mph or 24 km/h."),
  ground: groundSchema.default("asphalt"),
  headwindMps: number(0, 20, "Wind is 0 to 45 mph, for example 0 mph.").default(0),
  gainMPerMi: number(0, 200, "Climb is 0 to 200 m a mile, for example 10.").default(10),
  stopsPerMi: number(0, 40, "Stops are 0 to 40 a mile, for example 1.").default(1),
  tempC: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").default(20),
  altitudeM: number(-430, 6000, "Height above the sea is -430 to 6000 m.").default(0),
  lightsOn: z.boolean().default(false),
  riderW: number(0, 400, "A rider gives 0 to 400 W, for example 60 W.").default(60),
});
export type ReferenceRecord = z.infer<typeof referenceSchema>;
