import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { worthDoing, WORTH_SAYING } from "#core/estimation";

const doable = fc.record({
  minutes: fc.double({ min: 0, max: 300, noNaN: true }),
  sdLeft: fc.option(fc.double({ min: 0, max: 20, noNaN: true })),
});

describe("what is worth doing", () => {
  test("leaves out what takes off too little and what cannot be done, and puts first what a minute gains most by", () =>
    expect(
      worthDoing(10, [
        { what: "bench", minutes: 40, sdLeft: 4 },
        { what: "wall meter", minutes: 4, sdLeft: 6 },
        { what: "bars", minutes: 1, sdLeft: 9.8 },
        { what: "ride on", minutes: 50, sdLeft: null },
      ]).map(({ what, gainPerMinute }) => [what, gainPerMinute]),
    ).toEqual([
      ["wall meter", 1],
      ["bench", 0.15],
    ]));
  test("what takes no time counts as a minute", () =>
    expect(worthDoing(10, [{ minutes: 0, sdLeft: 5 }])).toMatchObject([{ gainPerMinute: 5 }]));
  test("a lesser share may be asked", () =>
    expect(worthDoing(10, [{ minutes: 1, sdLeft: 9.8 }], 0.01)).toHaveLength(1));
  test("whatever there is, what is listed gains, the most first", () =>
    fc.assert(
      fc.property(fc.double({ min: 0, max: 20, noNaN: true }), fc.array(doable), (sd, all) => {
        const listed = worthDoing(sd, all);
        const gains = listed.map(({ gainPerMinute }) => gainPerMinute);
        expect(gains).toEqual([...gains].sort((a, b) => b - a));
        for (const { sdLeft } of listed) expect(sdLeft).toBeLessThan(sd * (1 - WORTH_SAYING));
        const enough = all.filter(({ sdLeft }) => sdLeft !== null && sdLeft < sd * (1 - WORTH_SAYING));
        expect(listed).toHaveLength(enough.length);
      }),
    ));
});
