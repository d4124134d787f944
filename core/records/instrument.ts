import { z } from "zod";
import { named, number, pencil, words } from "./fields.ts";

export const INSTRUMENTS = ["energy meter", "logger", "charger"] as const;

/** A meter, logger or charger of the desk, with its errors. What is left out is the assumption of its kind. */
export const instrumentSchema = z.object({
  name: named("instrument"),
  kind: z
    .enum(INSTRUMENTS, { error: `An instrument is an ${INSTRUMENTS.join(", a ")}.` })
    .default("energy meter"),
  /** Of the energy it counts, 1 sd as a share. */
  gainSd: number(0.0005, 0.3, "A meter's error is 0.05 to 30 %, for example 1 %.").optional(),
  /** Wall energy that reaches the pack, of a charger. */
  eta: number(0.4, 1, "A charger passes on 40 to 100 % of the wall's energy, for example 86 %.").optional(),
  etaSd: number(0.001, 0.3, "The doubt of that is 0.1 to 30 %, for example 3 %.").optional(),
  /** What a charger gives. */
  amps: number(0.2, 50, "A charger gives 0.2 to 50 A, for example 2 A.").optional(),
  note: words,
  pencil,
});
export type Instrument = z.infer<typeof instrumentSchema>;
