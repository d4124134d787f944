import { addSample, noSamples, recordOf, type Samples, type DisplaySample } from "#core/ride/display";
import { chunksOf, keepChunk } from "./outbox";

/** How often a row that grows is put by, ms. */
const PUT_BY_MS = 3000;

/**
 * A device's samples as rows of the browser's storage: a row is put by as it grows, closed when it is full or the device
 * stops, and sent from there.
 */
export function sampleStore(testId: string, rideId: string, logger: string, closed: () => void) {
  let samples: Samples = noSamples();
  let putMs = 0;
  const put = (open: boolean) => {
    if (samples.timeS.length === 0) return Promise.resolve();
    const id = `${rideId} ${logger} ${samples.timeS[0]}`;
    return keepChunk({ id, testId, rideId, record: recordOf(samples, logger), open }).catch(() => undefined);
  };
  const close = () => {
    const kept = put(false);
    samples = noSamples();
    return kept.then(closed);
  };
  return {
    add(shown: DisplaySample, nowMs: number) {
      if (addSample(samples, shown)) void close();
      else if (nowMs - putMs > PUT_BY_MS) {
        putMs = nowMs;
        void put(true);
      }
    },
    close,
  };
}

/** Closes the rows that a page left open when it ended, and returns the last moment they hold, s; null without any. */
export async function closeLeftRows(testId: string, rideId: string): Promise<number | null> {
  const left = (await chunksOf(testId)).filter((chunk) => chunk.rideId === rideId);
  for (const chunk of left) if (chunk.open) await keepChunk({ ...chunk, open: false });
  return left.length ? Math.max(...left.map(({ record }) => record.timeS.at(-1)!)) : null;
}
