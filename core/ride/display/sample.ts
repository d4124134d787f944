import { z } from "zod";

/**
 * What a handlebar display and a meter show at a moment. Every field may be missing: devices differ, and drop out. SI
 * units; `timeS` in seconds since the epoch by the device's own clock.
 */
export const displaySampleSchema = z.object({
  timeS: z.number(),
  /** By a recorder, since the ride's start, m. */
  distanceM: z.number().optional(),
  /** By the display's trip meter, m. */
  displayM: z.number().optional(),
  speedMps: z.number().optional(),
  volts: z.number().optional(),
  /** Negative when energy comes back. */
  amps: z.number().optional(),
  percent: z.number().optional(),
  bars: z.number().optional(),
  airTempC: z.number().optional(),
  /** How far the display thinks the pack still goes, m. */
  rangeGuessM: z.number().optional(),
  level: z.string().optional(),
  /** Low-power mode is on. */
  lowPower: z.boolean().optional(),
});
export type DisplaySample = z.infer<typeof displaySampleSchema>;

/** What comes off a device at once: moments in order. */
export const displaySamplesSchema = z.array(displaySampleSchema);
