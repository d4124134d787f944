import { expect, test } from "@jest/globals";
import { saidEntries } from "./entries.ts";
import { family, foundIn, readPlain } from "./found.fixture.ts";
import { isRefilled, startsOf } from "./ride.ts";

test.each([
  [74, 100, true],
  [74, 99, true],
  [74, 90, false],
  [92, 100, false],
  [null, 100, false],
])("after %p a charge of %p is of a pack that was filled: %p", (last, percent, is) =>
  expect(isRefilled(last, percent)).toBe(is),
);

test("a ride begins with a full pack, or where charge came back", () => {
  const read = [
    { kind: "full_charge", value: "full" },
    { kind: "percent_left", value: 100 },
    { kind: "percent_left", value: 70 },
    { kind: "distance", value: 12 },
    { kind: "percent_left", value: 100 },
    { kind: "percent_left", value: 80 },
  ];
  expect(startsOf(read, { parts: false })).toEqual([read[0], read[4]]);
  expect(startsOf(read.slice(1, 4), { parts: true })).toEqual([]);
});

family("a second test on a pack filled again", [
  [
    "5 km, 95 percent. 10 km, 90 percent. 25 km, 74 percent. The battery is again at 100. 5 km, 94 percent. 10 km, 87 percent.",
    "distance 5, percent_left 95, distance 10, percent_left 90, distance 25, percent_left 74, percent_left 100, distance 5, percent_left 94, distance 10, percent_left 87",
  ],
]);

family("a test on a pack filled again tells its level anew", [
  [
    "Level 3. 5 km, 80 percent. The battery is at 100 percent. Again level 3. 5 km, 75 percent.",
    "level 3, distance 5, percent_left 80, percent_left 100, level 3, distance 5, percent_left 75",
  ],
  [
    "Level 3. 5 km, 80 percent. Again level 3. 10 km, 75 percent.",
    "level 3, distance 5, percent_left 80, distance 10, percent_left 75",
  ],
]);
family("a part charge on the way", [
  [
    "24 miles, 66 percent. I plugged in at the café and it went from 64 to 79. 40 miles, 70 percent.",
    "distance 24, percent_left 66, percent_left 79, distance 40, percent_left 70",
  ],
  [
    "24 miles, 66 percent. I topped it up over lunch, so we're back up to 80 percent.",
    "distance 24, percent_left 66, percent_left 80",
  ],
]);
family("and none", [
  ["I charged it to 80 percent.", "percent_left 80"],
  ["24 miles, 66 percent. I'll plug it in and charge it up to 80 percent.", "distance 24, percent_left 66"],
  ["24 miles, 66 percent. The gauge went from 64 to 79.", "distance 24, percent_left 66"],
  ["24 miles, 66 percent. That's 15 percent in 40 minutes on the charger.", "distance 24, percent_left 66"],
]);

test("a part charge is a line of the log, before what was read after it", () => {
  const { items } = readPlain("24 miles, 66 percent. I plugged in at the café and it went from 64 to 79.");
  expect(saidEntries(items, { levels: [], bars: 0 }).map(({ body }) => body)).toEqual([
    { kind: "checkIn", distanceM: expect.closeTo(38_624, 0), percent: 66 },
    { kind: "refill", toFull: false },
    { kind: "checkIn", percent: 79 },
  ]);
});

test("without a charge in between, charge that comes back is out of order", () =>
  expect(foundIn("5 km, 80 percent. 10 km, 70 percent. 11 km, 90 percent. 15 km, 60 percent.")).toBe(
    "distance 5, percent_left 80, distance 10, percent_left 70, distance 11, distance 15, percent_left 60",
  ));
