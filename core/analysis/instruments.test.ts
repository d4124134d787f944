import { describe, expect, test } from "@jest/globals";
import { instrumentSchema } from "#core/records";
import { byInstrument } from "./instruments.ts";

const desk = [
  instrumentSchema.parse({ name: "inline", gainSd: 0.004 }),
  instrumentSchema.parse({ name: "shed", kind: "charger", eta: 0.9, etaSd: 0.01 }),
  instrumentSchema.parse({ name: "plain" }),
];
const counted = (meter: string) =>
  ({ kind: "energyCounter", fromMark: 0, toMark: 1, wh: 100, stepWh: 1, meter }) as const;

describe("a reading by an instrument of the desk", () => {
  test("has that instrument's error", () =>
    expect(byInstrument(counted("inline"), desk)).toMatchObject({ gainSd: 0.004 }));
  test("has a charger's efficiency", () =>
    expect(
      byInstrument({ kind: "wallRefill", mark: 2, wallWh: 400, stepWh: 1, charger: "shed" }, desk),
    ).toMatchObject({ eta: 0.9, etaSd: 0.01 }));
  test("stays as it was when the desk has no such instrument, or knows nothing of it", () => {
    expect(byInstrument(counted("other"), desk)).toEqual(counted("other"));
    expect(byInstrument(counted("plain"), desk)).toEqual(counted("plain"));
  });
  test("a percent is nobody's", () => {
    const percent = { kind: "percent", mark: 1, percent: 61 } as const;
    expect(byInstrument(percent, desk)).toBe(percent);
  });
});
describe("an instrument that was renamed", () => {
  const renamed = instrumentSchema.parse({ name: "blue", formerNames: ["inline"], gainSd: 0.02 });
  test("is meant by the logs of before", () =>
    expect(byInstrument(counted("inline"), [renamed])).toMatchObject({ gainSd: 0.02 }));
  test("gives its old name up to one that has it now", () =>
    expect(byInstrument(counted("inline"), [renamed, ...desk])).toMatchObject({ gainSd: 0.004 }));
});
