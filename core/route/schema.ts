import { text } from "#core/base";
import { z } from "zod";
import { groundSchema, recordField, shapeOf } from "#core/fields";

/** A way to ride that is kept, so that several bikes ride the same one. SI units, degrees. */
const SHAPES = ["loop", "out and back", "one way"] as const;
export type Shape = (typeof SHAPES)[number];

/** What a pick-up point was called before. */
const FORMER_PICK_UP = "can be fetched";
/** What a place on the way is good for. */
const PLACES = ["pick-up point", "can stop", "water", "shelter"] as const;
export type PlaceKind = (typeof PLACES)[number];

const number = (least: number, most: number, sentence: string) =>
  z.number({ error: sentence }).min(least, sentence).max(most, sentence);

const climb = number(0, 9000, "Climb is 0 to 9000 m: give it as a positive height.");

/** Steepest way there is, rise over run. */
const STEEPEST = 0.4;

/** A leg's fields in the order of the table. */
export const LEG_FIELDS = {
  name: recordField({ schema: text().trim().max(80).default(""), label: "Name", typed: { as: "words" } }),
  distanceM: recordField({
    schema: number(20, 500_000, "A leg is 20 m to 300 miles long, for example 2.4 mi or 4 km."),
    label: "Distance",
    typed: { as: "quantity", dimension: "distance", digits: 3 },
  }),
  ground: recordField({ schema: groundSchema.default("asphalt"), label: "Ground", typed: { as: "choice" } }),
  gainM: recordField({
    schema: climb.default(0),
    label: "Climb",
    typed: { as: "quantity", dimension: "climb", digits: 0 },
  }),
  lossM: recordField({
    schema: climb.default(0),
    label: "Fall",
    typed: { as: "quantity", dimension: "climb", digits: 0 },
  }),
  /** Assist level or "throttle"; empty for the one the plan chooses. */
  level: recordField({ schema: text().trim().max(40).default(""), label: "Level", typed: { as: "words" } }),
};

const legSchema = z
  .object(shapeOf(LEG_FIELDS))
  .refine(({ gainM, lossM, distanceM }) => gainM + lossM <= STEEPEST * distanceM, {
    path: ["gainM"],
    message: "That climb is steeper than any road over this distance: check both units.",
  });
export type CourseLeg = z.infer<typeof legSchema>;

/** A place's fields in the order of its row. */
export const PLACE_FIELDS = {
  name: recordField({
    schema: text().trim().min(1, "Name the place, for example: ferry steps.").max(80),
    label: "Name",
    typed: { as: "name" },
  }),
  /** Along the way out from the start, m. */
  atM: recordField({
    schema: number(0, 1e6, "Type where the place is, from the start, for example 6.2 mi."),
    label: "From the start",
    typed: { as: "quantity", dimension: "distance", digits: 2 },
  }),
  kind: recordField({
    schema: z
      .preprocess(
        (kind) => (kind === FORMER_PICK_UP ? PLACES[0] : kind),
        z.enum(PLACES, { error: `A place is one of: ${PLACES.join(", ")}.` }),
      )
      .default("can stop"),
    label: "One is there where one",
    typed: { as: "choice" },
  }),
};

const placeSchema = z.object(shapeOf(PLACE_FIELDS));
export type CoursePlace = z.infer<typeof placeSchema>;

const degrees = (most: number, what: string) =>
  number(
    -most,
    most,
    `${what} runs from -${most} to ${most} degrees, for example ${most === 90 ? "54.1" : "-0.4"}.`,
  );

const MOST_PLACES = 200_000;
const heights = z.array(number(-500, 9000, "Heights run from -500 to 9,000 m.")).max(MOST_PLACES);

/** Heights every `stepM` along the course, the last step shorter, and the heading of each step. */
const profileSchema = z
  .object({
    stepM: number(0.5, 10_000, "A profile's step is 0.5 m to 10 km."),
    lengthM: number(1, 1e6, "A profile is at most 600 miles long."),
    heightM: heights.min(2),
    /** Degrees clockwise from north, one for each step. */
    headingDeg: z.array(number(-360, 360, "A heading is in degrees.")).max(MOST_PLACES),
    /** Where each height was taken, degrees. */
    lat: z.array(degrees(90, "Latitude")).max(MOST_PLACES),
    lon: z.array(degrees(180, "Longitude")).max(MOST_PLACES),
  })
  .refine(
    ({ heightM, headingDeg, lat, lon }) =>
      headingDeg.length === heightM.length - 1 &&
      lat.length === heightM.length &&
      lon.length === heightM.length,
    { message: "A profile has as many places as heights, and one heading fewer." },
  );
export type Profile = z.infer<typeof profileSchema>;

/** A course's own fields in the order of the form; its legs and places stand in rows. */
export const COURSE_FIELDS = {
  name: recordField({
    schema: text("Type the course's name.")
      .trim()
      .min(1, "Type the course's name.")
      .max(120, "A name holds 120 characters."),
    label: "Name",
    typed: { as: "name" },
  }),
  shape: recordField({
    schema: z.enum(SHAPES, { error: `A course is a ${SHAPES.join(", an ")}.` }).default("loop"),
    label: "Shape",
    typed: { as: "choice" },
  }),
  laps: recordField({
    schema: z.number().int("Laps are whole.").min(1, "A course has at least one lap.").max(200).default(1),
    label: "Laps",
    typed: { as: "number", whole: true },
  }),
  /** How one gets home from the end of a one-way course. */
  fetchedBy: recordField({
    schema: text().trim().max(200).default(""),
    label: "Home from its end",
    hint: "One way only: who fetches you, or what runs from there.",
    typed: { as: "words" },
  }),
  latitude: recordField({
    schema: degrees(90, "Latitude").optional(),
    label: "Latitude",
    hint: "For daylight, such as 53.6.",
    typed: { as: "number" },
  }),
  longitude: recordField({
    schema: degrees(180, "Longitude").optional(),
    label: "Longitude",
    hint: "West is negative.",
    typed: { as: "number" },
  }),
  altitudeM: recordField({
    schema: number(-430, 6000, "A course lies -430 to 6000 m high.").optional(),
    label: "Height above the sea",
    hint: "For the air.",
    typed: { as: "quantity", dimension: "climb", digits: 0 },
  }),
  note: recordField({
    schema: text().trim().max(2000).default(""),
    label: "Remarks",
    typed: { as: "words" },
  }),
};

export const courseSchema = z
  .object({
    ...shapeOf(COURSE_FIELDS),
    /** Once round, or the way out; ridden in this order. */
    legs: z
      .array(legSchema)
      .min(1, "A course has at least one leg.")
      .max(200, "A course has at most 200 legs."),
    /** Of a recorded track; its slopes then stand for the legs' climb. */
    profile: profileSchema.nullable().default(null),
    places: z.array(placeSchema).max(40, "A course holds at most 40 places.").default([]),
  })
  .superRefine((course, context) => {
    if (course.shape === "one way" && course.fetchedBy === "")
      context.addIssue({
        code: "custom",
        path: ["fetchedBy"],
        message:
          "A one-way course ends away from home, where nobody can be: say who fetches you or what runs home from there, or make it out and back.",
      });
    if (course.shape === "one way" && course.laps > 1)
      context.addIssue({
        code: "custom",
        path: ["laps"],
        message: "A one-way course has one lap: make it out and back to ride it again.",
      });
    const lengthM = legsLength(course.legs);
    course.places.forEach(({ atM, name }, i) => {
      if (atM > lengthM + 1)
        context.addIssue({
          code: "custom",
          path: ["places", i, "atM"],
          message: `${name} lies past the end of the way out: type where it is from the start.`,
        });
    });
  });
export type Course = z.infer<typeof courseSchema>;

/**
 * Length of the legs, m.
 *
 * @example legsLength([{ distanceM: 400 }, { distanceM: 600 }]) === 1000
 */
export function legsLength(legs: readonly { readonly distanceM: number }[]): number {
  return legs.reduce((sum, { distanceM }) => sum + distanceM, 0);
}
