import { describe, expect, test } from "@jest/globals";
import { keepReview, keptReview, type KeptReview } from "./kept";

/** A browser's store, in memory. */
function storeOf(refuses = false): Storage {
  const texts = new Map<string, string>();
  return {
    getItem: (key: string) => texts.get(key) ?? null,
    setItem: (key: string, text: string) => {
      if (refuses) throw new DOMException("full", "QuotaExceededError");
      texts.set(key, text);
    },
    removeItem: (key: string) => void texts.delete(key),
  } as Storage;
}

const REVIEW: KeptReview = {
  name: "levee.vtt",
  text: "20 miles and 31 percent",
  unit: "mi",
  decisions: [
    [0, { kept: true, value: 20.2 }],
    [1, { kept: false }],
    [2, { kept: true, value: [9, 11] }],
    [3, { kept: true, value: "boost" }],
  ],
  answers: [[0, 1]],
  moment: 3,
  tie: { clock: "10:20", film: "1:05" },
};

describe("a narration that is being gone through", () => {
  test("comes back as it was left, for its own ride alone", () => {
    const store = storeOf();
    keepReview("ride-a", REVIEW, store);
    expect(keptReview("ride-a", store)).toEqual(REVIEW);
    expect(keptReview("ride-b", store)).toBeNull();
  });
  test("is gone when it is put away", () => {
    const store = storeOf();
    keepReview("ride-a", REVIEW, store);
    keepReview("ride-a", null, store);
    expect(keptReview("ride-a", store)).toBeNull();
  });
  test("of a browser that is full, or keeps nothing, is not there, and nothing breaks", () => {
    const store = storeOf(true);
    keepReview("ride-a", REVIEW, store);
    expect(keptReview("ride-a", store)).toBeNull();
    const none = {
      getItem: () => {
        throw new DOMException("no", "SecurityError");
      },
    } as unknown as Storage;
    expect(keptReview("ride-a", none)).toBeNull();
  });
  test.each([
    ["something else", "12"],
    ["what is no JSON", "{"],
    ["decisions of another form", JSON.stringify({ ...REVIEW, decisions: { 0: true } })],
    ["a unit nobody rides in", JSON.stringify({ ...REVIEW, unit: "furlong" })],
    ["a moment before the first", JSON.stringify({ ...REVIEW, moment: -1 })],
  ])("%s under its name is none", (_, text) => {
    const store = storeOf();
    store.setItem("barometron narration ride-a", text);
    expect(keptReview("ride-a", store)).toBeNull();
  });
});
