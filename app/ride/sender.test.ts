import { beforeEach, describe, expect, test } from "@jest/globals";
import "fake-indexeddb/auto";
import type { Entry } from "#core/ride/log";
import {
  chunksOf,
  closeOutbox,
  dropOld,
  fact,
  keep,
  keepChunk,
  keepFact,
  keepPhotograph,
  keptOf,
  markSent,
  photographsOf,
  sendAgain,
} from "./outbox";
import { isWaiting, sendChunk, sendNext, sendPhotograph, type ServerAnswer, type Post } from "./sender";

const NOW = Date.UTC(2026, 9, 18, 9);
const id = (n: number) => `019a0000-0000-7000-8000-${n.toString(16).padStart(12, "0")}`;
let made = 0;
let testId = "";

/** Keeps an entry of a test that no other test of this file uses. */
async function note(seq: number, rideId = "r", at = NOW): Promise<Entry> {
  const entry: Entry = {
    id: id((made += 1)),
    seq,
    at: new Date(at).toISOString(),
    body: { kind: "note", note: `note ${seq}` },
    supersedes: null,
  };
  await keep({ id: entry.id, testId: testId, rideId, entry, sent: false });
  return entry;
}

/** A server that answers as told and remembers what it was sent; where it takes a batch it tells so of each entry. */
function server(answer: (seqs: readonly number[]) => ServerAnswer | Error) {
  const batches: number[][] = [];
  const post: Post = (_path, body) => {
    const { entries } = body as { entries: Entry[] };
    const seqs = entries.map(({ seq }) => seq);
    batches.push(seqs);
    const told = answer(seqs);
    if (told instanceof Error) return Promise.reject(told);
    const verdicts = entries.map((entry) => ({ id: entry.id, told: "kept" as const }));
    return Promise.resolve(told.status === 200 && !told.verdicts ? { ...told, verdicts } : told);
  };
  return { post, batches };
}
const waiting = async () => (await keptOf(testId)).filter(isWaiting).map(({ entry }) => entry.seq);

beforeEach(() => {
  testId = `test ${(made += 1)}`;
});

describe("sending what waits", () => {
  test("goes in order, one ride at a time, and is sent only when the server says so", async () => {
    for (const seq of [3, 1, 2]) await note(seq);
    await note(4, "another ride");
    const { post, batches } = server(() => ({ status: 200 }));
    expect(await sendNext(testId, post)).toBe("sent");
    expect(batches).toEqual([[1, 2, 3]]);
    expect(await waiting()).toEqual([4]);
    expect(await sendNext(testId, post)).toBe("sent");
    expect(await sendNext(testId, post)).toBe("empty");
  });
  test.each([
    ["no network", new TypeError("no network")],
    ["a database that is away", { status: 503 }],
    ["a server that answers without a word on any entry", { status: 200, verdicts: [] }],
    ["a server too busy", { status: 429 }],
  ])("%s leaves all of it waiting", async (_what, answer) => {
    await note(1);
    await note(2);
    expect(await sendNext(testId, server(() => answer).post)).toBe("away");
    expect(await waiting()).toEqual([1, 2]);
  });
  test("a refused batch goes out one by one; the refused entry stays, with its reason", async () => {
    for (const seq of [1, 2, 3]) await note(seq);
    const { post, batches } = server((seqs) =>
      seqs.includes(2) ? { status: 400, sentences: ["Percent runs from 0 to 100."] } : { status: 200 },
    );
    expect(await sendNext(testId, post)).toBe("refused");
    expect(batches).toEqual([[1, 2, 3], [1], [2], [3]]);
    expect(await waiting()).toEqual([]);
    expect((await keptOf(testId)).find(({ entry }) => entry.seq === 2)).toMatchObject({
      sent: false,
      refused: "Percent runs from 0 to 100.",
    });
  });
  test("an entry the server breaks on is set aside after three tries, and holds back no other", async () => {
    for (const seq of [1, 2, 3]) await note(seq);
    const { post, batches } = server((seqs) => ({ status: seqs.includes(2) ? 500 : 200 }));
    expect(await sendNext(testId, post)).toBe("failing");
    expect(batches).toEqual([[1, 2, 3], [1], [2], [3]]);
    expect(await waiting()).toEqual([2]);
    expect(await sendNext(testId, post)).toBe("failing");
    await note(4);
    expect(await sendNext(testId, post)).toBe("refused");
    expect(await waiting()).toEqual([]);
    const parked = (await keptOf(testId)).find(({ entry }) => entry.seq === 2)!;
    expect(parked).toMatchObject({ sent: false, refused: expect.stringContaining("3 times") });
    await sendAgain(parked.id);
    expect(await waiting()).toEqual([2]);
    expect(await sendNext(testId, server(() => ({ status: 200 })).post)).toBe("sent");
  });
  test("an id that stands for something else on the desk is told, and never counted as sent", async () => {
    const [first, second] = [await note(1), await note(2)];
    const { post } = server(() => ({
      status: 200,
      verdicts: [
        { id: first.id, told: "conflict" },
        { id: second.id, told: "same" },
      ],
    }));
    expect(await sendNext(testId, post)).toBe("refused");
    const kept = await keptOf(testId);
    expect(kept.map(({ sent }) => sent)).toEqual([false, true]);
    expect(kept[0]!.refused).toContain("was not kept");
  });
  test("an entry that waits outlives the page", async () => {
    await note(1);
    await closeOutbox();
    expect(await waiting()).toEqual([1]);
  });
});

describe("what the browser keeps", () => {
  test("drops what the server has held for long, and nothing that waits", async () => {
    const [sent, open] = [await note(1), await note(2)];
    await keep({ id: sent.id, testId: testId, rideId: "r", entry: sent, sent: true });
    await dropOld(NOW + 30 * 86_400_000);
    expect(await keptOf(testId)).toHaveLength(2);
    await dropOld(NOW + 90 * 86_400_000);
    expect((await keptOf(testId)).map((kept) => kept.id)).toEqual([open.id]);
  });
  test("remembers facts", async () => {
    await keepFact("clock", 3600);
    expect(await fact("clock")).toBe(3600);
    expect(await fact("nothing")).toBeUndefined();
  });
});

describe("rows of samples", () => {
  const record = { logger: "stand-in", timeS: [1, 2], volts: [50, 50], amps: [3, 4] };
  const row = (open: boolean) =>
    keepChunk({ id: `${testId} row`, testId: testId, rideId: "r", record, open });
  const answering =
    (status: number): Post =>
    () =>
      Promise.resolve({ status, sentences: ["Times run back."] });
  test("a row that still grows is not sent", async () => {
    await row(true);
    expect(await sendChunk(testId, answering(200))).toBe("empty");
  });
  test("a finished one goes out once, and waits while nobody answers", async () => {
    await row(false);
    expect(await sendChunk(testId, answering(503))).toBe("away");
    expect(await sendChunk(testId, answering(200))).toBe("sent");
    expect(await sendChunk(testId, answering(200))).toBe("empty");
  });
  test("a refused one stays with its reason and is not sent again", async () => {
    await row(false);
    expect(await sendChunk(testId, answering(400))).toBe("refused");
    expect(await chunksOf(testId)).toMatchObject([{ refused: "Times run back." }]);
    expect(await sendChunk(testId, answering(200))).toBe("empty");
  });
});

describe("photographs", () => {
  const take = (entryId: string) =>
    keepPhotograph({
      ...{ id: `${testId} picture`, testId, rideId: "r", entryId },
      picture: new Blob(["picture"], { type: "image/jpeg" }),
      takenAt: "2026-10-18T09:00:00Z",
    });
  const answering = (status: number): Post & { readonly sent: FormData[] } => {
    const sent: FormData[] = [];
    const post: Post = (_path, body) => {
      sent.push(body as FormData);
      return Promise.resolve({ status, sentences: ["This is no photograph."] });
    };
    return Object.assign(post, { sent });
  };
  test("one waits for its entry, then goes out once, with what it is of", async () => {
    const entry = await note(1);
    await take(entry.id);
    const post = answering(200);
    expect(await sendPhotograph(testId, post)).toBe("empty");
    await markSent([entry.id]);
    expect(await sendPhotograph(testId, post)).toBe("sent");
    expect(Object.fromEntries(post.sent[0]!)).toMatchObject({ rideId: "r", entryId: entry.id });
    expect(await photographsOf(testId)).toEqual([]);
    expect(await sendPhotograph(testId, post)).toBe("empty");
  });
  test("it waits while nobody answers or this phone is barred; refused, it stays with its reason", async () => {
    await take(id(999));
    expect(await sendPhotograph(testId, answering(503))).toBe("away");
    expect(await sendPhotograph(testId, answering(401))).toBe("barred");
    expect(await sendPhotograph(testId, () => Promise.reject(new Error("offline")))).toBe("away");
    expect(await sendPhotograph(testId, answering(400))).toBe("refused");
    expect(await photographsOf(testId)).toMatchObject([{ refused: "This is no photograph." }]);
    expect(await sendPhotograph(testId, answering(200))).toBe("empty");
  });
});
