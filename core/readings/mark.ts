import { z } from "zod";

/** A mark by its number from 0 along the ride. */
export const markSchema = z
  .number({ error: "A mark is a number from 0." })
  .int("A mark is a whole number.")
  .min(0, "A mark is a number from 0.");
