import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  chargeMinutes,
  daylightAt,
  latestStart,
  methodSchema,
  PLAIN_COURSE,
  proposalsFor,
  questionOf,
  QUESTIONS,
  reckonPlan,
  runOrder,
  templateNamed,
  TEMPLATES,
  yieldOf,
  type Method,
  type Plan,
  type PlanRecord,
  type PlanResults,
} from "#core/planning";
import { sharesOf, usualSpeeds, wattsAt } from "#core/bike";
import { clockText, METRES_PER_MILE, momentOf, MPS_PER_MPH, renderUnits } from "#core/base";
import { SCHOOLS } from "#core/records";
import { bike, course, method, mi, plan, reckon, record, rider } from "./plans.fixture.ts";

const codes = (results: PlanResults) => results.warnings.map(({ code }) => code);

describe("questions and templates", () => {
  test("every question names templates there are", () => {
    for (const { methods } of QUESTIONS)
      for (const name of methods) expect(templateNamed(name)?.method.name).toBe(name);
  });
  test("every school of method has a template", () => {
    const schools = new Set(TEMPLATES.map(({ method: { school } }) => school));
    for (const school of [...SCHOOLS, "bench" as const]) expect(schools.has(school)).toBe(true);
  });
  test("each is a method as the schema has it", () => {
    for (const { method: each } of TEMPLATES) expect(methodSchema.parse(each)).toEqual(each);
  });
});

describe("what a plan takes for granted", () => {
  test("speeds rise with the levels", () => {
    const speeds = usualSpeeds(bike);
    expect(speeds["low"]!).toBeLessThan(speeds["mid"]!);
    expect(speeds["mid"]!).toBeLessThan(speeds["high"]!);
    expect(usualSpeeds({ ...bike, throttle: false })).not.toHaveProperty("throttle");
  });
  test("shares of power as noted, else even steps", () => {
    expect(sharesOf(bike)).toEqual([1 / 3, 2 / 3, 1]);
    expect(sharesOf({ ...bike, levelShares: [0.2, 0.5, 0.8] })).toEqual([0.2, 0.5, 0.8]);
  });
  test("a heart rate on the rider's line", () => {
    expect(wattsAt(rider, 125)).toBeCloseTo(100, 9);
    expect(wattsAt(rider, 60)).toBe(0);
    expect(wattsAt(null, 125)).toBeNull();
  });
  test("what is typed is ink, what is assumed pencil", () => {
    const pencils = (given: Partial<Plan>) =>
      reckon({ plan: plan(given) })
        .taken.filter(({ pencil }) => pencil)
        .map(({ what }) => what);
    expect(pencils({})).toEqual(expect.arrayContaining(["speed on mid", "rider puts in", "wind", "air"]));
    const typed = pencils({ speedMps: 6, bpm: 125, windMps: 3, airTempC: 9 });
    for (const what of ["speed on mid", "rider puts in", "wind", "air"]) expect(typed).not.toContain(what);
  });
  test("what is typed narrows the forecast", () => {
    const sd = (given: Partial<Plan>) => reckon({ plan: plan(given) }).whPerM.sd;
    expect(sd({ speedMps: 14 * MPS_PER_MPH })).toBeLessThan(0.95 * sd({}));
    expect(sd({ bpm: 105 })).toBeLessThan(sd({}));
  });
});

describe("a run sheet's lines", () => {
  test("every five miles, at the turn, at quarters and at the end, each once", () => {
    const { checkIns, endM } = reckon();
    const whats = checkIns.map(({ what }) => what);
    expect(whats).toContain("turn");
    expect(whats.at(-1)).toContain("end");
    const places = checkIns.map(({ expected }) => expected.atM);
    expect([...places].sort((a, b) => a - b)).toEqual(places);
    expect(places.at(-1)).toBeCloseTo(endM, 3);
  });
  test("never more than a page holds", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 0, max: 12 }),
        (miles, laps, places) => {
          const long = course(miles, {
            laps,
            places: Array.from({ length: places }, (_, i) => ({ name: `p${i}`, atM: (i * mi(miles)) / 13 })),
          });
          const { checkIns } = reckon({
            course: long,
            plan: plan({ method: method("Part charge", { everyM: 400 }) }),
          });
          expect(checkIns.length).toBeLessThanOrEqual(15);
        },
      ),
      { numRuns: 25 },
    );
  });
  test("each place has one instruction: none on the way home, and none after going home was said", () => {
    for (const miles of [4, 8, 12, 20, 30]) {
      const results = reckon({ course: course(miles) });
      const turnM = results.checkIns.find(({ what }) => what === "turn")!.expected.atM;
      const said = results.checkIns.filter(({ goOnAbove }) => goOnAbove !== null);
      for (const { expected } of said) expect(expected.atM).toBeLessThan(turnM + 1);
      const home = said.findIndex(({ goOnAbove }) => goOnAbove!.impossible);
      if (home >= 0) expect(home).toBe(said.length - 1);
    }
  });
  test("a day's end on a commute week", () => {
    const results = reckon({ plan: plan({ days: 3, method: method("Commute week") }), course: course(2) });
    const days = results.checkIns.map(({ what }) => what).filter((what) => what.startsWith("day"));
    expect(days).toEqual(["day 1 done", "day 2 done", expect.stringContaining("day 3 done")]);
  });
  test("where the charge and not the way decides, the place has a span", () => {
    const { checkIns } = reckon({ course: course(14) });
    const quarter = checkIns.find(({ what }) => what.startsWith("25 %"))!;
    expect(quarter.where!.mean).toBeCloseTo(quarter.expected.atM, 0);
    expect(quarter.where!.sd).toBeGreaterThan(500);
    expect(checkIns.find(({ what }) => what === "turn")!.where).toBeNull();
    const emptied = reckon({ plan: plan({ method: method("Run-down") }) }).checkIns.at(-1)!;
    expect(emptied.where!.sd).toBeGreaterThan(1000);
  });
  test("bars go in their order", () => {
    const { barsLost } = reckon({ plan: plan({ method: method("Run-down") }) });
    expect(barsLost.map(({ bar }) => bar)).toEqual([5, 4, 3, 2]);
  });
});

describe("what stands against a plan is said with numbers", () => {
  test("a pack that cannot do it, and what would fit", () => {
    const results = reckon({ course: course(40) });
    const warning = results.warnings.find(({ code }) => code === "pack-cannot")!;
    expect(warning.weight).toBe("stop");
    expect(renderUnits(warning.sentence, "imperial")).toMatch(
      /takes \d+ Wh ± \d+ Wh .* holds \d+ Wh .* \d+\.\d mi in\. Turning round at \d+\.\d mi fits\./,
    );
    const laps = reckon({ course: course(5, { shape: "loop", laps: 30 }) });
    expect(laps.warnings[0]!.sentence).toMatch(/\d+ of 30 laps fit/);
  });
  test("a sunset before the start", () => {
    const results = reckon({ plan: plan({ startsAt: "18:00" }) });
    expect(codes(results)).toContain("sunset-before-start");
    expect(results.warnings[0]!.sentence).toContain("before this ride starts at 18:00");
    expect(codes(reckon({ plan: plan({ startsAt: "18:00", dark: true }) }))).toEqual([]);
  });
  test("dark before home", () =>
    expect(codes(reckon({ plan: plan({ startsAt: "14:30" }) }))).toContain("dark-before-home"));
  test("readings the display does not show", () => {
    const bare = { ...bike, percentStep: 0, bars: 0 };
    expect(
      codes(reckon({ bike: bare, plan: plan({ method: method("Part charge", { taken: ["percent"] }) }) })),
    ).toContain("no-percent");
    expect(
      codes(reckon({ bike: bare, plan: plan({ method: method("Part charge", { taken: ["bars"] }) }) })),
    ).toContain("no-bars");
  });
  test("a level the bike does not have", () =>
    expect(codes(reckon({ course: course(8, { legs: [{ distanceM: mi(8), level: "turbo" }] }) }))).toContain(
      "unknown-level",
    ));
  test.each([
    [
      "no throttle",
      { bike: { ...bike, throttle: false }, plan: plan({ method: method("Throttle run-down") }) },
      "no-throttle",
    ],
    ["zero levels", { bike: { ...bike, levels: [] } }, "no-levels"],
    [
      "runs on a one-way course",
      {
        plan: plan({ method: method("Sections A B B A") }),
        course: course(8, { shape: "one way", fetchedBy: "Tove" }),
      },
      "one-way-runs",
    ],
  ])("%s", (_name, more, code) =>
    expect(reckonPlan(record(more as Partial<PlanRecord>))).toMatchObject({
      ok: false,
      problems: [{ code }],
    }),
  );
});

describe("how far, and when", () => {
  test("a run-down ends where the pack does, and says how far home is", () => {
    const results = reckon({ plan: plan({ method: method("Run-down") }), course: course(3) });
    expect(results.endM).toBeCloseTo(results.emptyAt!.mean, 0);
    expect(results.chanceHome).toBeNull();
    expect(results.emptyFromHomeM!).toBeLessThanOrEqual(mi(3) + 1);
    expect(results.fullPowerEnds!.mean).toBeLessThan(results.emptyAt!.mean);
  });
  test("a share of the charge ends where it is used", () => {
    const half = plan({
      method: method("Part charge", { until: "a share of the charge is used", share: 0.5 }),
    });
    expect(reckon({ plan: half }).end.used.mean).toBeCloseTo(0.5, 3);
  });
  test("one way, back is a choice and home a lift", () => {
    const results = reckon({ course: course(40, { shape: "one way", fetchedBy: "the ferry" }) });
    expect(results.chanceHome).toBeNull();
    expect(renderUnits(results.turnRule, "imperial")).toMatch(
      /^Up to \d+\.\d mi the pack still brings you back/,
    );
  });
  test("the cold is told in watt-hours and miles", () => {
    const cold = renderUnits(reckon({ plan: plan({ airTempC: -5 }) }).weather.join(" "), "metric");
    expect(cold).toMatch(/At −5 C the pack yields 83 % .* \d+ Wh less, about \d+\.\d km/);
    expect(cold).toContain("Do not charge it below freezing");
    expect(reckon({ plan: plan({ airTempC: 38 }) }).weather.join(" ")).toContain("let the pack cool");
  });
  test("the charge of the evening before", () => {
    expect(
      chargeMinutes({ chemistry: "NMC", labelWh: 655, ampHours: 14, seriesCells: 13 }, 30, 2),
    ).toBeCloseTo(334, 6);
    expect(chargeMinutes({ chemistry: "NMC", labelWh: 500 }, 30, 2)).toBeNull();
    const { charge } = reckon({ plan: plan({ chargedBy: "22:00", chargerA: 4 }) });
    expect(charge!.startsOn).toBe("2026-11-25");
    expect(charge!.startsAt < "22:00").toBe(true);
    expect(reckon({ plan: plan({ startPercent: 80 }) }).charge).toBeNull();
  });
});

describe("the sun", () => {
  const at = (ms: number | null) => (ms === null ? null : clockText(ms, "+00:00"));
  test("on the equator at the equinox it is up for twelve hours and some minutes", () => {
    const { sunriseMs, sunsetMs } = daylightAt("2026-03-20", "+00:00", 0, 0);
    expect((sunsetMs! - sunriseMs!) / 3_600_000).toBeCloseTo(12.12, 1);
  });
  test("at midsummer beyond the circle it does not set, and any start will do", () => {
    const light = daylightAt("2026-06-21", "+00:00", 75, 20);
    expect(at(light.sunsetMs)).toBeNull();
    expect(latestStart(light, 7200)).toBeNull();
  });
  test("the latest start is home half an hour before it sets", () => {
    const light = daylightAt("2026-11-26", "+00:00", 53.6, 0.9);
    expect(latestStart(light, 3600)!).toBe(light.sunsetMs! - 5_400_000);
  });
  test("clocks go by their offset", () => {
    expect(momentOf("2026-11-26", "09:30", "+01:00")).toBe(Date.UTC(2026, 10, 26, 8, 30));
    expect(clockText(Date.UTC(2026, 10, 26, 23, 30), "+01:00")).toBe("00:30");
  });
});

describe("what a method will leave, by the ledger", () => {
  const left = (given: Partial<Method>, more: Partial<PlanRecord> = {}) => {
    const result = yieldOf(
      record({ plan: plan({ method: method("Part charge", given) }), course: course(10), ...more }),
    );
    if (!result.ok) throw new Error(result.problems[0]!.sentence);
    return result.value;
  };
  test("every further reading narrows it", () => {
    const sd = (taken: Method["taken"]) => left({ taken }).whPerM!.sd;
    expect(sd(["percent", "rest volts"])).toBeLessThan(sd(["percent"]));
    expect(sd(["percent", "energy counter"])).toBeLessThan(0.5 * sd(["percent"]));
  });
  test("a finer gauge leaves less than a coarse one", () => {
    const sd = (percentStep: number) =>
      left({ taken: ["percent"] }, { bike: { ...bike, percentStep } }).whPerM!.sd;
    expect(sd(1)).toBeLessThan(sd(10));
  });
  test("what it lists is what it would leave", () => {
    const now = left({ taken: ["percent"] });
    const counter = now.surer.find(({ what }) => what.includes("energy counter"))!;
    expect(counter.sdLeft).toBeCloseTo(left({ taken: ["percent", "energy counter"] }).whPerM!.sd, 9);
    const gains = now.surer.map(({ gainPerMinute }) => gainPerMinute);
    expect([...gains].sort((a, b) => b - a)).toEqual(gains);
  });
  test("nothing that the bike does not show is offered", () => {
    const bare = { ...bike, bars: 0 };
    expect(
      left({ taken: ["percent"] }, { bike: bare })
        .surer.map(({ what }) => what)
        .join(),
    ).not.toContain("bar");
  });
  test("a bench is hours and a pack, not a ride", () => {
    const result = yieldOf(record({ plan: plan({ method: method("Bench discharge") }) }));
    expect(result).toMatchObject({ ok: true, value: { whPerM: null, rideS: 0 } });
    expect(result.ok && result.value.bench!.sd / result.value.bench!.mean).toBeCloseTo(0.015, 9);
  });
  test("steady current is quick and coarse", () => {
    const steady = yieldOf(record({ plan: plan({ method: method("Steady current") }) }));
    expect(steady.ok && steady.value.minutes).toBeLessThan(45);
    expect(steady.ok && steady.value.whPerM!.sd).toBeGreaterThan(left({}).whPerM!.sd / 3);
  });
});

describe("comparisons", () => {
  const compare = (pairs: number, wanted: number, taken: Method["taken"] = ["percent"], miles = 2) => {
    const designed = method("Sections A B B A", {
      taken,
      compare: { a: "slick", b: "knobbly", pairs, wantedWhPerM: wanted / METRES_PER_MILE },
    });
    const result = yieldOf(
      record({ plan: plan({ method: designed }), course: course(miles, { shape: "loop" }) }),
    );
    if (!result.ok) throw new Error(result.problems[0]!.sentence);
    return result.value;
  };
  test("A B B A, so that a drift cancels", () => {
    expect(runOrder(2).join("")).toBe("abba");
    expect(runOrder(4).join("")).toBe("abbaabba");
    expect(compare(2, 1).comparison!.order).toEqual(["slick", "knobbly", "knobbly", "slick"]);
  });
  test("in even pairs every run of one stands as late as the other's, on the whole", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), (half) => {
        const order = runOrder(2 * half);
        const sum = (run: string) => order.reduce((total, each, i) => total + (each === run ? i : 0), 0);
        expect(sum("a")).toBe(sum("b"));
      }),
    );
  });
  test("more runs, longer sections and finer readings resolve more", () => {
    const { sd } = compare(2, 1).comparison!;
    expect(compare(3, 1).comparison!.sd).toBeLessThan(sd);
    expect(compare(2, 1, ["percent"], 4).comparison!.sd).toBeLessThan(sd);
    expect(compare(2, 1, ["percent", "energy counter"]).comparison!.sd).toBeLessThan(0.3 * sd);
  });
  test("what it says would resolve it does", () => {
    const wide = compare(2, 4.5);
    expect(wide.comparison!.resolved).toBe(false);
    const needed = wide.comparison!.pairsNeeded!;
    expect(compare(needed, 4.5).comparison!.resolved).toBe(true);
    expect(compare(needed - 1, 4.5).comparison!.resolved).toBe(false);
  });
  test("runs that one charge does not hold are refused", () =>
    expect(
      yieldOf(record({ plan: plan({ method: method("Sections A B B A") }), course: course(40) })),
    ).toMatchObject({ ok: false, problems: [{ code: "runs-too-long" }] }));
});

describe("proposals", () => {
  test.each(QUESTIONS.map(({ id, methods }) => [id, methods] as const))(
    "%s has its methods, each priced",
    (id, methods) => {
      const { course: _, ...rest } = record();
      const proposals = proposalsFor(id, rest, null);
      expect(proposals.map(({ method: { name } }) => name)).toEqual(methods);
      for (const proposal of proposals) {
        expect(proposal.problem).toBe("");
        expect(proposal.yield!.minutes).toBeGreaterThan(10);
        expect(proposal.yield!.chargeShare).toBeGreaterThan(0);
      }
    },
  );
  test("a bike without throttle is told so instead of priced", () => {
    const { course: _, ...rest } = record({ bike: { ...bike, throttle: false } });
    const [first] = proposalsFor("throttle", rest, PLAIN_COURSE);
    expect(first).toMatchObject({ yield: null, problem: expect.stringContaining("has no throttle") });
    expect(questionOf("throttle").asks).toContain("throttle");
  });
});
