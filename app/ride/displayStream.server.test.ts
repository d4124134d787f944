import { describe, expect, test } from "@jest/globals";
import type { DisplayMoment } from "#core/simulator";
import { displayStream } from "./displayStream.server";

/** A ride of so many seconds, dark in the middle; notes when it is let go. */
function ride(seconds: number) {
  const state = { last: -1, ended: false };
  function* moments(): Generator<DisplayMoment> {
    try {
      for (let atS = 0; atS <= seconds; atS += 1) {
        state.last = atS;
        yield { atS, sample: {}, shown: atS % 10 === 5 ? null : { timeS: atS } } as DisplayMoment;
      }
    } finally {
      state.ended = true;
    }
  }
  return { state, moments: moments() };
}

async function readAll(stream: ReadableStream<Uint8Array>): Promise<string> {
  return new Response(stream).text();
}

const secondsIn = (text: string) => [...text.matchAll(/"timeS":(\d+)/g)].map(([, second]) => Number(second));

describe("a display's stream", () => {
  test("holds every moment once, in order, but for those it shows nothing in; then ends", async () => {
    const { moments, state } = ride(300);
    const text = await readAll(displayStream(moments, { fromS: 0, clock: 600 }));
    const wanted = Array.from({ length: 301 }, (_, second) => second).filter((second) => second % 10 !== 5);
    expect(secondsIn(text)).toEqual(wanted);
    expect(text.trimEnd().endsWith("event: end\ndata: {}")).toBe(true);
    expect(text).toMatch(/^retry: 1000\n\n/);
    expect(text).toContain("id: 300\n");
    expect(state.ended).toBe(true);
  });
  test("begins where it is told, as after a break", async () => {
    const text = await readAll(displayStream(ride(300).moments, { fromS: 297, clock: 600 }));
    expect(secondsIn(text)).toEqual([297, 298, 299, 300]);
  });
  test("goes no further than it is read, and lets go of the ride when the reader leaves", async () => {
    const { moments, state } = ride(100_000);
    const reader = displayStream(moments, { fromS: 0, clock: 600 }).getReader();
    await reader.read();
    await reader.read();
    await new Promise((resolve) => setTimeout(resolve, 1200));
    expect(state.last).toBeLessThan(1500);
    await reader.cancel();
    expect(state.ended).toBe(true);
  });
});
