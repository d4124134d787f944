import { z } from "zod";

/**
 * A narration that is being gone through and what was decided of it so far, kept in this browser by its ride: a page that is
 * loaded again, or a browser that ended, loses nothing.
 */
const keptSchema = z.object({
  name: z.string(),
  text: z.string(),
  /** The unit of bare figures that was chosen; empty for the one that is said most. */
  unit: z.enum(["", "mi", "km"]),
  decisions: z.array(
    z.tuple([
      z.number().int(),
      z.object({
        kept: z.boolean(),
        value: z.union([z.number(), z.tuple([z.number(), z.number()]).readonly(), z.string()]).optional(),
      }),
    ]),
  ),
  answers: z.array(z.tuple([z.number().int(), z.number().int()])),
  moment: z.number().int().min(0),
  tie: z.object({ clock: z.string(), film: z.string() }),
});
export type KeptReview = z.infer<typeof keptSchema>;

const keyOf = (rideId: string) => `barometron narration ${rideId}`;

/** The narration that was being gone through for a ride; null without one, or where the browser keeps nothing. */
export function keptReview(rideId: string, store: Storage = localStorage): KeptReview | null {
  try {
    const kept = keptSchema.safeParse(JSON.parse(store.getItem(keyOf(rideId)) ?? "null"));
    return kept.success ? kept.data : null;
  } catch {
    return null;
  }
}

/** Keeps a narration as it stands, or takes it away. A browser that is full loses only this second net. */
export function keepReview(rideId: string, kept: KeptReview | null, store: Storage = localStorage): void {
  try {
    if (kept) store.setItem(keyOf(rideId), JSON.stringify(kept));
    else store.removeItem(keyOf(rideId));
  } catch {
    // Refused or full.
  }
}
