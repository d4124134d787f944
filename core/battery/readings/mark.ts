import { z } from "zod";

/** A mark by its number from 0 along the ride. */
export const markSchema = z
  .number({ error: "A mark is a number from 0." })
  .int("A mark is a whole number.")
  .min(0, "A mark is a number from 0.");

/** What a reading at one mark says of its place. */
export const markShape = {
  mark: markSchema,
  /** Doubt of the place, 1 sd, m: of a look noted without a distance. */
  placeSdM: z.number().min(0, "The doubt of a place is zero or more.").max(1e6).optional(),
};
