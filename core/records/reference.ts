import { z } from "zod";
import { groundSchema, recordField, shapeOf } from "#core/fields";
import { named, number } from "./fields.ts";

/** A reference's fields in the order a form asks for them. SI units; climb in metres a mile. */
export const REFERENCE_FIELDS = {
  name: recordField({
    schema: named("reference"),
    label: "Name",
    hint: "Another name makes another reference.",
    typed: { as: "name" },
  }),
  carriedKg: recordField({
    schema: number(30, 400, "Rider and load weigh 30 to 400 kg together, for example 100 kg."),
    label: "Rider and load",
    hint: "Besides the bike.",
    typed: { as: "quantity", dimension: "mass", digits: 1 },
  }),
  speedMps: recordField({
    schema: number(1, 20, "Type the speed held, for example 15 mph or 24 km/h."),
    label: "Speed held",
    typed: { as: "quantity", dimension: "speed", digits: 1 },
  }),
  ground: recordField({
    schema: groundSchema.default("asphalt"),
    label: "Ground",
    typed: { as: "choice" },
  }),
  gainMPerMi: recordField({
    schema: number(0, 200, "Climb is 0 to 200 m a mile, for example 10.").default(10),
    label: "Climb, m a mile",
    typed: { as: "number" },
  }),
  stopsPerMi: recordField({
    schema: number(0, 40, "Stops are 0 to 40 a mile, for example 1.").default(1),
    label: "Stops a mile",
    typed: { as: "number" },
  }),
  headwindMps: recordField({
    schema: number(0, 20, "Wind is 0 to 45 mph, for example 0 mph.").default(0),
    label: "Wind, from all sides",
    typed: { as: "quantity", dimension: "speed", digits: 1 },
  }),
  tempC: recordField({
    schema: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").default(20),
    label: "Air temperature",
    typed: { as: "quantity", dimension: "temperature", digits: 1 },
  }),
  altitudeM: recordField({
    schema: number(-430, 6000, "Height above the sea is -430 to 6000 m.").default(0),
    label: "Height above the sea",
    typed: { as: "quantity", dimension: "climb", digits: 1 },
  }),
  riderW: recordField({
    schema: number(0, 400, "A rider gives 0 to 400 W, for example 60 W.").default(60),
    label: "From the rider, W",
    typed: { as: "number" },
  }),
  lightsOn: recordField({ schema: z.boolean().default(false), label: "Lights on", typed: { as: "tick" } }),
};

/** Conditions that bikes are brought to, as a person sets them. */
export const referenceSchema = z.object(shapeOf(REFERENCE_FIELDS));
export type ReferenceRecord = z.infer<typeof referenceSchema>;
