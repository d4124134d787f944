import { setImmediate } from "node:timers/promises";
import type { DisplaySample } from "#core/ride/display";
import type { DisplayMoment } from "#core/simulator";

/** How often moments are sent, ms. */
const TICK_MS = 250;
/** How long finding the first moment may hold up others, ms. */
const SLICE_MS = 8;
/** A reader who was slow is not flooded: at most this much of the clock is made up for at once, s. */
const MOST_BEHIND_S = 1;

interface Pace {
  /** First moment to send, s since the ride's start. */
  readonly fromS: number;
  /** Ride seconds to a second. */
  readonly clock: number;
}

function nextOf(moments: Generator<DisplayMoment>): DisplayMoment | null {
  const next = moments.next();
  return next.done ? null : next.value;
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * A display's moments as server-sent events, at a clock's pace. Nothing is held but the moment at hand: a reader who does
 * not read stops the ride. The event's id is the last second it holds, so that a reader who lost it goes on from there.
 */
export function displayStream(
  moments: Generator<DisplayMoment>,
  { fromS, clock }: Pace,
  done: () => void = () => undefined,
): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let [dueS, beganMs] = [fromS, performance.now()];
  let ahead: DisplayMoment | null = null;
  let left = false;
  return new ReadableStream<Uint8Array>(
    {
      async start(controller) {
        // Asked one by one: leaving a loop over them would end them. Far on, others are let in between.
        let beganMs = performance.now();
        do {
          ahead = nextOf(moments);
          if (performance.now() - beganMs > SLICE_MS) {
            await setImmediate();
            if (left) return;
            beganMs = performance.now();
          }
        } while (ahead && ahead.atS < fromS);
        controller.enqueue(encoder.encode("retry: 1000\n\n"));
      },
      async pull(controller) {
        await wait(TICK_MS);
        const now = performance.now();
        dueS += clock * Math.min(MOST_BEHIND_S, (now - beganMs) / 1000);
        beganMs = now;
        const rows: DisplaySample[] = [];
        let lastS: number | null = null;
        while (ahead && ahead.atS <= dueS) {
          if (ahead.shown) rows.push(ahead.shown);
          lastS = ahead.atS;
          ahead = nextOf(moments);
        }
        if (rows.length > 0)
          controller.enqueue(encoder.encode(`id: ${lastS}\ndata: ${JSON.stringify(rows)}\n\n`));
        else controller.enqueue(encoder.encode(": standing by\n\n"));
        if (!ahead) {
          controller.enqueue(encoder.encode("event: end\ndata: {}\n\n"));
          done();
          controller.close();
        }
      },
      cancel() {
        left = true;
        done();
        moments.return(undefined);
        ahead = null;
      },
    },
    { highWaterMark: 1 },
  );
}
