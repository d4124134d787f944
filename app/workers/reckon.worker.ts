import type { Entry } from "#core/ride/log";
import type { Result } from "#core/base";
import type { TestRecord } from "#core/records";
import { analyseTest, type TestResults } from "#core/analysis";

/** Reckons a test in the background, with edits that are still on their way to the server. */
export interface WorkerRequest {
  readonly id: number;
  /** Where the record is read from, once for each stamp of it. */
  readonly address: string;
  readonly stamp: string;
  readonly edits: readonly Edit[];
}

/** A new line of one ride's log. */
export interface Edit {
  readonly ride: number;
  readonly entry: Entry;
}

export interface WorkerResponse {
  readonly id: number;
  readonly result: Result<TestResults> | null;
}

/** Times a new record is reckoned ahead, with pauses for edits: the engine is slow at what it has not done before. */
const WARM_UPS = 3;

const records = new Map<string, Promise<TestRecord>>();
const results = new Map<string, Result<TestResults>>();

function recordAt({ address, stamp }: WorkerRequest): Promise<TestRecord> {
  const key = `${address} ${stamp}`;
  let record = records.get(key);
  if (!record) {
    records.clear();
    results.clear();
    record = fetch(address).then(async (response) => {
      if (!response.ok) throw new Error(`the record answered ${response.status}`);
      return ((await response.json()) as { tests: [TestRecord] }).tests[0];
    });
    records.set(key, record);
    void record.then(
      (read) => warmUp(read, WARM_UPS),
      // A fetch that failed is not remembered: with the network back it is tried again.
      () => records.delete(key),
    );
  }
  return record;
}

function warmUp(record: TestRecord, times: number): void {
  if (times === 0) return;
  setTimeout(() => {
    analyseTest(record);
    warmUp(record, times - 1);
  }, 20);
}

async function answer(ask: WorkerRequest): Promise<Result<TestResults>> {
  const record = await recordAt(ask);
  const key = JSON.stringify(ask.edits);
  let result = results.get(key);
  if (!result) {
    result = analyseTest({
      ...record,
      rides: record.rides.map((ride, r) => ({
        ...ride,
        entries: [...ride.entries, ...ask.edits.filter((edit) => edit.ride === r).map(({ entry }) => entry)],
      })),
    });
    results.set(key, result);
  }
  return result;
}

self.onmessage = ({ data: ask }: MessageEvent<WorkerRequest>) => {
  answer(ask).then(
    (result) => self.postMessage({ id: ask.id, result } satisfies WorkerResponse),
    () => self.postMessage({ id: ask.id, result: null } satisfies WorkerResponse),
  );
};
