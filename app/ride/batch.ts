import { z } from "zod";
import { instant } from "#core/base";
import { entrySchema } from "#core/ride/log";

/** Entries on their way to the server, of one ride. */
export const batchSchema = z.object({
  rideId: z.uuid(),
  /** When it went out, by the sender's clock: a wrong one shows against the server's. */
  sentAt: instant.optional(),
  /** Entries that still wait on the device behind these. */
  waiting: z.number().int().min(0).max(1e6).optional(),
  entries: z.array(entrySchema).min(1).max(500, "At most 500 entries go out at once."),
});
export type Batch = z.input<typeof batchSchema>;

/** A difference of clocks under this says nothing: taps and networks are as slow, s. */
const CLOCK_SLACK_S = 30;

/** How far a clock is behind the server's, s; 0 when near enough. */
export function clockOffset(clockMs: number, serverMs: number): number {
  const offsetS = (serverMs - clockMs) / 1000;
  return Math.abs(offsetS) < CLOCK_SLACK_S ? 0 : Math.round(offsetS);
}
