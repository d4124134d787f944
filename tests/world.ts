import type { Reference } from "#core/bike";
import { testRecordSchema } from "#core/records";
import {
  makeDesk,
  makeTest,
  type Desk,
  type DeskOptions,
  type KindName,
  type WorldGiven,
  type WorldTest,
} from "#core/world";

/** A test of the world as the desk would have kept it. */
export function worldTest(seed: number, kind: KindName, given: WorldGiven = {}): WorldTest {
  const { record, truth } = makeTest(seed, kind, given);
  return { record: testRecordSchema.parse(record), truth };
}

/** A desk of the world, likewise. */
export function worldDesk(seed: number, options: DeskOptions, reference: Reference): Desk {
  const { tests, truths } = makeDesk(seed, options, reference);
  return { tests: tests.map((test) => ({ ...test, record: testRecordSchema.parse(test.record) })), truths };
}
