import { describe, expect, test } from "@jest/globals";
import { beganByTie, NO_TIE, tieProblem } from "./filmTie";

const [DAY, ZONE] = ["2026-10-20", "+02:00"];
const at = (clock: string) => Date.parse(`${DAY}T${clock}+02:00`) / 1000;

describe("a film tied to the ride's clock by what is typed", () => {
  test.each([
    ["10:20", "", "10:20:00"],
    ["10:20", "0:00", "10:20:00"],
    ["10:20:15", "1:05", "10:19:10"],
    [" 10.20 ", " 1:05 ", "10:18:55"],
    ["2:05 pm", "1:02:07", "13:02:53"],
  ])("by %p at %p it began at %s", (clock, film, began) => {
    expect(beganByTie({ clock, film }, DAY, ZONE)).toBe(at(began));
    expect(tieProblem({ clock, film }, DAY, ZONE)).toBeNull();
  });
  test("nothing typed says nothing, and is no fault", () => {
    expect(beganByTie(NO_TIE, DAY, ZONE)).toBeNull();
    expect(tieProblem(NO_TIE, DAY, ZONE)).toBeNull();
  });
  test.each([
    ["about ten", "", /what the clock said, such as 10:20/],
    ["25:00", "0:00", /what the clock said, such as 10:20/],
    ["10:20", "the weir", /where the film was then, such as 1:05/],
    ["", "1:05", /what the clock said then/],
  ])("%p at %p is asked for anew", (clock, film, sentence) => {
    expect(beganByTie({ clock, film }, DAY, ZONE)).toBeNull();
    expect(tieProblem({ clock, film }, DAY, ZONE)).toMatch(sentence);
  });
});
