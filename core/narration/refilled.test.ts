import { expect, test } from "@jest/globals";
import { family, foundIn } from "./found.fixture.ts";
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
  expect(startsOf(read)).toEqual([read[0], read[4]]);
  expect(startsOf(read.slice(1, 4))).toEqual([]);
});

family("a second test on a pack filled again", [
  [
    "5 km, 95 percent. 10 km, 90 percent. 25 km, 74 percent. The battery is again at 100. 5 km, 94 percent. 10 km, 87 percent.",
    "distance 5, percent_left 95, distance 10, percent_left 90, distance 25, percent_left 74, percent_left 100, distance 5, percent_left 94, distance 10, percent_left 87",
  ],
]);

test("without a charge in between, charge that comes back is out of order", () =>
  expect(foundIn("5 km, 80 percent. 10 km, 70 percent. 11 km, 90 percent. 15 km, 60 percent.")).toBe(
    "distance 5, percent_left 80, distance 10, percent_left 70, distance 11, distance 15, percent_left 60",
  ));
