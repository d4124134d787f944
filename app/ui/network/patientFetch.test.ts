import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import {
  NOTHING_WAITS,
  ONCE,
  onWaiting,
  patientFetch,
  tryNow,
  waitingNow,
  type Waiting,
} from "./patientFetch";

const NO_NETWORK = new TypeError("Failed to fetch");
const answer = { ok: true } as Response;

/** A network that is gone for so many requests. */
function network(gone: number) {
  const sent: { readonly url: string; readonly once: string | null }[] = [];
  const send = ((url: string, init?: RequestInit) => {
    sent.push({ url, once: new Headers(init?.headers).get(ONCE) });
    return sent.length <= gone ? Promise.reject(NO_NETWORK) : Promise.resolve(answer);
  }) as unknown as typeof fetch;
  let ids = 0;
  return { sent, fetch: patientFetch(send, () => `id ${(ids += 1)}`) };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

describe("a request that finds no network", () => {
  test("is sent again until it is answered, a save under one id all the time", async () => {
    const { sent, fetch } = network(3);
    const told: Waiting[] = [];
    const stop = onWaiting(() => told.push(waitingNow()));
    const saved = fetch("/plan/1.data", { method: "POST" });
    await jest.advanceTimersByTimeAsync(60_000);
    expect(await saved).toBe(answer);
    expect(sent.map(({ once }) => once)).toEqual(["id 1", "id 1", "id 1", "id 1"]);
    expect(told).toEqual([{ saves: 1, pages: 0 }, NOTHING_WAITS]);
    stop();
  });
  test("is sent at once when somebody asks", async () => {
    const { sent, fetch } = network(1);
    const page = fetch("/bikes.data?_routes=x");
    await jest.advanceTimersByTimeAsync(1);
    expect(waitingNow()).toEqual({ saves: 0, pages: 1 });
    tryNow();
    expect(await page).toBe(answer);
    expect(sent).toHaveLength(2);
    expect(sent[0]!.once).toBeNull();
  });
  test("waits no more once it is given up", async () => {
    const { sent, fetch } = network(99);
    const stop = new AbortController();
    const page = fetch("/bikes.data", { signal: stop.signal });
    await jest.advanceTimersByTimeAsync(1);
    const refused = expect(page).rejects.toBe(NO_NETWORK);
    stop.abort();
    await refused;
    expect(sent).toHaveLength(1);
    expect(waitingNow()).toEqual(NOTHING_WAITS);
  });
  /** A body that breaks off in the middle. */
  const broken = (error: unknown) =>
    new Response(
      new ReadableStream({
        start: (controller) => controller.enqueue(new Uint8Array([1, 2])),
        pull: (controller) => controller.error(error),
      }),
    );
  test("or whose answer breaks off, is sent again: the router gets it whole or not at all", async () => {
    let asked = 0;
    const send = () => {
      asked += 1;
      return Promise.resolve(asked === 1 ? broken(NO_NETWORK) : new Response("whole", { status: 202 }));
    };
    const page = patientFetch(send as typeof fetch, () => "id")("/bikes.data");
    await jest.advanceTimersByTimeAsync(60_000);
    const answered = await page;
    expect([asked, answered.status, await answered.text()]).toEqual([2, 202, "whole"]);
  });
  test("or that is given up while its answer comes in, fails where it was asked for", async () => {
    const gone = new DOMException("signal is aborted without reason", "AbortError");
    const send = () => Promise.resolve(broken(gone));
    const left = AbortSignal.abort();
    const page = patientFetch(send as typeof fetch, () => "id")("/bikes.data", { signal: left });
    await expect(page).rejects.toThrow("broke off");
  });
  test("or is aborted by something else than who asked, is sent again", async () => {
    let asked = 0;
    const send = () => {
      asked += 1;
      const aborted = new DOMException("BodyStreamBuffer was aborted", "AbortError");
      return Promise.resolve(asked === 1 ? broken(aborted) : new Response("whole"));
    };
    const page = patientFetch(send as typeof fetch, () => "id")("/bikes.data");
    await jest.advanceTimersByTimeAsync(60_000);
    expect([asked, await (await page).text()]).toEqual([2, "whole"]);
  });
  test("fails as ever when it is not the router's, or when it failed for another reason", async () => {
    await expect(network(1).fetch("/ride/1/entries", { method: "POST" })).rejects.toBe(NO_NETWORK);
    const other = new Error("a fault of ours");
    const broken = patientFetch((() => Promise.reject(other)) as never, () => "id");
    await expect(broken("/bikes.data")).rejects.toBe(other);
  });
});
