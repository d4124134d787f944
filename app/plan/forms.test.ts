import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { courseSchema } from "#core/route";
import { planSchema, templateNamed, TEMPLATES } from "#core/planning";
import { METRES_PER_MILE, type System } from "#core/base";
import { PLANS } from "#db/demo/planned";
import { readCourseForm } from "./courseRead";
import { methodForm, methodTexts, planTexts, readPlanForm, textsOf, type FormTexts } from "./forms";
import { distanceSpan, hoursText } from "./spans";

const system = fc.constantFrom<System>("imperial", "metric");
const links = { packId: "p", setUpId: "", riderId: "", courseId: "" };

/** Numbers alike to a thousandth, however deep; the rest the same. */
function alike(got: unknown, wanted: unknown, path = ""): void {
  if (typeof wanted === "number")
    expect(Math.abs((got as number) - wanted)).toBeLessThanOrEqual(0.01 * Math.max(0.02, Math.abs(wanted)));
  else if (typeof wanted === "object" && wanted !== null)
    for (const [key, value] of Object.entries(wanted))
      alike((got as Record<string, unknown>)[key], value, `${path}.${key}`);
  else expect([path, got]).toEqual([path, wanted]);
}

describe("what a form shows reads back as it was", () => {
  test("methods", () => {
    fc.assert(
      fc.property(fc.constantFrom(...TEMPLATES), system, ({ method }, units) =>
        alike(methodForm(units).parse(methodTexts(method, units)), method),
      ),
    );
  });
  test("plans", () => {
    fc.assert(
      fc.property(fc.constantFrom(...PLANS), system, ({ plan }, units) => {
        const whole = { ...plan, day: "2026-11-26" };
        const texts = { ...planTexts(whole, units), ...links };
        alike(readPlanForm(texts, units).plan, { ...whole, ticked: [] });
      }),
    );
  });
});

describe("a plan's form", () => {
  const base = planSchema.parse({
    title: "t",
    question: "claim",
    method: templateNamed("Part charge")!.method,
    day: "2026-11-26",
  });
  const texts = { ...planTexts(base, "imperial"), ...links };
  const read = (more: FormTexts, units: System = "imperial") => readPlanForm({ ...texts, ...more }, units);
  const said = (more: FormTexts) => read(more).problems ?? {};
  test("is good as it is", () => expect(said({})).toEqual({}));
  test.each([
    [{ packId: "" }, "packId", "Choose the pack."],
    [{ title: " " }, "title", "Type the plan's name."],
    [{ startsAt: "9" }, "startsAt", "Type the time as 09:30."],
    [{ windFromDeg: "up" }, "windFromDeg", "“up” is no direction"],
    [{ windFromDeg: "400" }, "windFromDeg", "0 to 360"],
    [{ "method.taken": [] }, "method.taken", "at least one reading"],
    [{ "method.everyM": "5 m" }, "method.everyM", "Check in every"],
    [{ "method.name": "" }, "method.name", "Type the method's name."],
    [{ "method.compare.a": "slick" }, "method.compare.b", "Name the second"],
    [{ reserve: "80 %" }, "reserve", "0 to 60 %"],
    [{ laps: "2.5" }, "laps", "Laps are whole."],
    [{ airTempC: "200 F" }, "airTempC", "-40 to 55 C"],
  ])("%j is answered beside its field", (more, field, sentence) =>
    expect(said(more)[field]).toContain(sentence),
  );
  test("a compass point is degrees, and back", () => {
    const { plan } = read({ windFromDeg: "sw" });
    expect(plan!.windFromDeg).toBe(225);
    expect(planTexts(plan!, "imperial")["windFromDeg"]).toBe("SW");
  });
  test("empty choices are none", () =>
    expect(read({}).links).toEqual({
      packId: "p",
      setUpId: null,
      riderId: null,
      courseId: null,
    }));
  test("runs of two set-ups are a comparison", () => {
    const { plan } = read(
      {
        "method.compare.a": "slick",
        "method.compare.b": "knobbly",
        "method.compare.pairs": "2",
        "method.compare.wantedWhPerM": "1 Wh/mi",
      },
      "metric",
    );
    expect(plan!.method.compare).toEqual({
      a: "slick",
      b: "knobbly",
      pairs: 2,
      wantedWhPerM: expect.closeTo(1 / METRES_PER_MILE, 9),
    });
  });
});

describe("a course's form", () => {
  const form = (fields: Record<string, string>) => {
    const data = new FormData();
    for (const [name, value] of Object.entries(fields)) data.append(name, value);
    return readCourseForm(data, "imperial");
  };
  const legs = {
    name: "Levee",
    shape: "loop",
    laps: "2",
    "legs.0.distanceM": "1.4",
    "legs.0.ground": "brick",
    "legs.0.gainM": "20 ft",
    "legs.1.distanceM": "4 km",
    "legs.1.ground": "fine gravel",
    "legs.2.ground": "asphalt",
  };
  test("reads legs in either unit and leaves out empty rows", () => {
    const { course } = form(legs);
    expect(course!.legs.map(({ distanceM }) => Math.round(distanceM))).toEqual([2253, 4000]);
    expect(course!.legs[0]!.gainM).toBeCloseTo(6.1, 1);
    expect(course!.laps).toBe(2);
  });
  test("says beside the row what is wrong, counting the rows as they stand", () => {
    const { problems } = form({
      ...legs,
      "legs.0.distanceM": "",
      "legs.0.gainM": "",
      "legs.1.distanceM": "far",
    });
    expect(Object.keys(problems!)).toContain("legs.1.distanceM");
  });
  test("a course that ends where nobody can be", () =>
    expect(form({ ...legs, shape: "one way", laps: "1" }).problems!["fetchedBy"]).toContain(
      "where nobody can be",
    ));
  test("a name is needed", () =>
    expect(form({ ...legs, name: "" }).problems).toEqual({ name: "Type the course's name." }));
  test("a damaged profile is said, not swallowed", () =>
    expect(form({ ...legs, profile: "{" }).problems!["profile"]).toContain("bring the track in again"));
  test("places lie on the way out", () => {
    const placed = { ...legs, "places.0.name": "tap", "places.0.atM": "2", "places.0.kind": "water" };
    expect(form(placed).course!.places).toMatchObject([{ name: "tap", kind: "water" }]);
    expect(form({ ...placed, "places.0.atM": "9" }).problems!["places.0.atM"]).toContain("past the end");
    expect(courseSchema.parse(form(placed).course)).toEqual(form(placed).course);
  });
});

test("several values of one name are a list, one is itself", () => {
  const data = new FormData();
  data.append("taken", "percent");
  data.append("taken", "bars");
  data.append("title", "t");
  expect(textsOf(data)).toEqual({ taken: ["percent", "bars"], title: "t" });
});

describe("spans in words", () => {
  test("hours and minutes", () => expect([hoursText(5520), hoursText(-4)]).toEqual(["1:32", "0:00"]));
  test("a distance, never under nothing", () =>
    expect(distanceSpan({ mean: 1609.344, sd: 1609.344 }, "imperial")).toEqual({
      expected: "1.0",
      span: "0 to 3",
    }));
});
