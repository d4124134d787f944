import { describe, expect, test } from "@jest/globals";
import { METRES_PER_MILE } from "#core/base";
import { testRecordSchema } from "#core/records";
import { analyseTest } from "#core/analysis";
import { makeStandin, SCENARIOS, type ScenarioName } from "#core/simulator";
import { rngFrom } from "#core/world";
import { drawGauge, slowError } from "./gauge.ts";
import { FULL, packModel, type TruePack } from "./pack.ts";

const names = Object.keys(SCENARIOS) as ScenarioName[];

describe("chance", () => {
  test("the same seed gives the same numbers, another seed others", () => {
    const row = (seed: number) => {
      const chance = rngFrom(seed);
      return [chance.next(), chance.normal(), chance.between(3, 4)];
    };
    expect(row(7)).toEqual(row(7));
    expect(row(7)).not.toEqual(row(8));
  });
  test("normals have their mean and sd", () => {
    const chance = rngFrom(3);
    const values = Array.from({ length: 4000 }, () => chance.normal(2, 0.5));
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const variance = values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length;
    expect(mean).toBeCloseTo(2, 1);
    expect(Math.sqrt(variance)).toBeCloseTo(0.5, 1);
  });
  test("a slow error has the sd and the reach the ledger assumes", () => {
    let [square, near, far] = [0, 0, 0];
    for (let seed = 1; seed <= 600; seed += 1) {
      const error = slowError(rngFrom(seed), 0.02);
      const [a, b, c] = [error(0.4), error(0.6), error(0.9)];
      square += a * a;
      near += a * b;
      far += a * c;
    }
    expect(Math.sqrt(square / 600)).toBeCloseTo(0.02, 2);
    expect(near / square).toBeCloseTo(Math.exp(-0.5), 1);
    expect(Math.abs(far / square)).toBeLessThan(0.15);
  });
});

describe("the pack", () => {
  const pack: TruePack = {
    chemistry: "NMC",
    seriesCells: 13,
    ampHours: 14,
    labelWh: 655,
    chemicalWh: 640,
    ohm: 0.1,
    tempC: 25,
  };
  const drain = (watts: number, tempC = 25) => {
    const model = packModel({ ...pack, tempC });
    let state = FULL;
    for (let second = 0; second < 40_000; second += 1) {
      const drawn = model.draw(state, watts, 1);
      if (!drawn) break;
      state = drawn.state;
    }
    return state;
  };
  test("yields at its terminals what its chemistry holds less what its resistance takes", () => {
    expect(drain(150).usedWh).toBeLessThan(640);
    expect(drain(150).usedWh).toBeGreaterThan(625);
    expect(drain(600).usedWh).toBeLessThan(drain(150).usedWh - 10);
  });
  test("yields less in the cold", () =>
    expect(drain(150, 0).usedWh / drain(150).usedWh).toBeCloseTo(0.88, 1));
  test("sags under load and climbs back at rest, the energy staying gone", () => {
    const model = packModel(pack);
    let state = { ...FULL, q: 0.6 };
    const rested = model.restVolts(state);
    const first = model.draw(state, 500, 1)!;
    expect(first.volts).toBeLessThan(rested - 0.5);
    for (let second = 0; second < 300; second += 1) state = model.draw(state, 500, 1)!.state;
    const tired = model.restVolts(state);
    const used = state.usedWh;
    for (let second = 0; second < 900; second += 1) state = model.draw(state, 0, 1)!.state;
    expect(model.restVolts(state)).toBeGreaterThan(tired + 0.2);
    expect(state.usedWh).toBe(used);
  });
  test("draws the watts asked for", () => {
    const { volts, amps } = packModel(pack).draw(FULL, 300, 1)!;
    expect(volts * amps).toBeCloseTo(300, 9);
  });
});

test("bars go in order, each near its place", () => {
  const { barsGo } = drawGauge(rngFrom(4), { percentStep: 0, bars: 5, stuckBelow: 0 });
  expect(barsGo).toHaveLength(4);
  expect([...barsGo]).toEqual([...barsGo].sort((a, b) => a - b));
});

describe.each(names)("%s", (name) => {
  const { record, truth } = makeStandin(5, name);
  const result = analyseTest(record);
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  const { best, flags } = result.value;
  test("is the same test every time, and a valid one", () => {
    expect(makeStandin(5, name)).toEqual({ record, truth });
    expect(testRecordSchema.safeParse(record).success).toBe(true);
  });
  test("its parts add to its energy", () => {
    const sum = Object.values(truth.cells).reduce((total, { miles, whPerMi }) => total + miles * whPerMi, 0);
    expect(sum).toBeCloseTo(truth.energyWh, 4);
    expect(truth.energyWh / truth.miles).toBeCloseTo(truth.whPerMi, 9);
  });
  test("is reckoned within four of its sds, though its truth is nowhere in it", () => {
    const { mean, sd } = best.value;
    const answer =
      name === "slip" || name === "stuck-gauge"
        ? (result.value.bestWithoutFlags ?? best.value)
        : { mean, sd };
    expect(Math.abs(answer.mean * METRES_PER_MILE - truth.whPerMi)).toBeLessThan(
      4 * answer.sd * METRES_PER_MILE,
    );
    expect(JSON.stringify(record)).not.toContain(String(truth.whPerMi));
  });
  test("its slip, if it has one, is questioned", () => {
    expect(truth.slip === null || flags.some(({ rootId }) => rootId === truth.slip!.entryId)).toBe(true);
  });
});

describe("faults leave their traces", () => {
  const entries = (name: ScenarioName) => makeStandin(9, name).record.rides.flatMap((ride) => ride.entries);
  const fields = (name: ScenarioName) => new Set(entries(name).flatMap(({ body }) => Object.keys(body)));
  test("bars alone note no percent", () => {
    expect(fields("bars").has("percent")).toBe(false);
    expect(entries("bars").some(({ body }) => body.kind === "barLost")).toBe(true);
  });
  test("a run-down meets low-power mode and the cut-off", () => {
    const kinds = entries("run-down").map(({ body }) => body.kind);
    expect(kinds).toContain("lowPower");
    expect(entries("run-down").at(-1)!.body).toMatchObject({ kind: "end", reason: "cutOff" });
  });
  test("a wrong wheel shows in the odometer factor", () => {
    const result = analyseTest(makeStandin(9, "wrong-wheel").record);
    expect(result.ok && result.value.odometer!.k).toBeCloseTo(1 / 1.08, 1);
    expect(result.ok && result.value.odometer!.warn).toBe(true);
  });
  test("a lost sky makes the way look shorter", () => {
    const { record, truth } = makeStandin(9, "lost-sky");
    const last = record.rides[0]!.entries.at(-1)!.body as { distanceM: number };
    expect(last.distanceM).toBeLessThan(truth.miles * METRES_PER_MILE - 50);
  });
  test("a stuck gauge stands still at the bottom", () => {
    const percents = entries("stuck-gauge").flatMap(({ body }) => ("percent" in body ? [body.percent] : []));
    expect(Math.min(...percents.map((percent) => percent ?? 100))).toBeGreaterThanOrEqual(12);
  });
  test("a logger has gaps", () => {
    const { telemetry } = makeStandin(9, "logged").record.rides[0]!;
    const steps = telemetry!.timeS.slice(1).map((time, i) => time - telemetry!.timeS[i]!);
    expect(Math.max(...steps)).toBeGreaterThan(5);
  });
  test("bars come back overnight, and are taken for a rebound", () => {
    const result = analyseTest(makeStandin(20, "rebound").record);
    expect(result.ok && result.value.notices.join()).toContain("came back at rest");
  });
  test("a held power lets the speed go up and down with the hills; a held speed does not", () => {
    const spread = (holds: "speed" | "power") => {
      const { telemetry } = makeStandin(9, { what: "t", percentStep: 1, meter: "logger", hilly: true, holds })
        .record.rides[0]!;
      const moving = telemetry!.speedMps!.filter((speed) => speed > 2.5);
      const mean = moving.reduce((a, b) => a + b, 0) / moving.length;
      return Math.sqrt(moving.reduce((sum, speed) => sum + (speed - mean) ** 2, 0) / moving.length) / mean;
    };
    expect(spread("power")).toBeGreaterThan(1.3 * spread("speed"));
  });
  test("a top-up is a refill between two days", () => {
    const { record } = makeStandin(9, "top-up");
    expect(record.rides).toHaveLength(2);
    expect(record.rides[0]!.entries.at(-1)!.body).toMatchObject({ kind: "refill", toFull: false });
  });
});
