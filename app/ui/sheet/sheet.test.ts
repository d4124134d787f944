import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { codeOf } from "./code";
import { forReader } from "./forReader";
import { readMarkdown } from "./markdown";
import { isPlainDrawing } from "./plainDrawing";

describe("own words", () => {
  const textOf = (markdown: string) =>
    readMarkdown(markdown)
      .flatMap(({ runs }) => runs.map(({ text }) => text))
      .join("");
  test("slanted, bold, items and headings", () =>
    expect(readMarkdown("It *creaks* **loudly**.\n\n- one\n- two\n\n# End")).toEqual([
      {
        as: "paragraph",
        runs: [
          { text: "It " },
          { text: "creaks", slanted: true },
          { text: " " },
          { text: "loudly", strong: true },
          { text: "." },
        ],
      },
      { as: "item", runs: [{ text: "one" }] },
      { as: "item", runs: [{ text: "two" }] },
      { as: "heading", runs: [{ text: "End" }] },
    ]));
  test("tags stay text, and no address but of the web or of a letter is followed", () => {
    expect(textOf("a <script>alert(1)</script> b")).toBe("a <script>alert(1)</script> b");
    const runs = readMarkdown(
      "[a](javascript:alert(1)) [b](https://levee.example) [c](mailto:a@b.example)",
    )[0]!.runs;
    expect(runs.map(({ to }) => to).filter(Boolean)).toEqual(["https://levee.example", "mailto:a@b.example"]);
  });
  test.each([">", "> ", "+ ", "1. ", "*_", "[", "a\n\n", "- a\n"])(
    "%j without end is as typed where it is no Markdown, and never deep",
    (unit) => {
      const typed = unit.repeat(Math.ceil(20_000 / unit.length));
      const words = readMarkdown(typed);
      const letters = words.flatMap(({ runs }) => runs.map(({ text }) => text)).join("");
      expect(letters.replace(/\s/g, "").length).toBeGreaterThan(typed.replace(/[\s>-]/g, "").length / 3);
      expect(words.length).toBeLessThan(20_000);
    },
  );
  test("a long honest text is read to its end", () => {
    const paragraph = "It **climbs** well, and *quietly*; [the way](https://levee.example) is gravel.";
    const long = Array.from({ length: 120 }, () => paragraph).join("\n\n");
    expect(readMarkdown(long).every(({ runs }) => runs.some(({ strong }) => strong))).toBe(true);
    expect(readMarkdown(long)).toHaveLength(120);
  });
  test("no word is lost", () =>
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[a-z]{1,9}$/), { minLength: 1, maxLength: 20 }), (words) =>
        expect(textOf(words.join(" "))).toBe(words.join(" ")),
      ),
    ));
});

describe("drawings", () => {
  test.each([
    ['<svg><path d="M0 0" fill="url(#mud)"/><text>60.5</text></svg>', true],
    ['<svg onload="alert(1)"/>', false],
    ["<svg><script>1</script></svg>", false],
    ['<svg><image href="x"/></svg>', false],
    ['<svg><rect fill="url(http://levee.example)"/></svg>', false],
    ["<p>no drawing</p>", false],
  ])("%s: %p", (svg, plain) => {
    expect(isPlainDrawing(svg)).toBe(plain);
    if (!plain) expect(forReader(svg)).toBe("");
  });
});

describe("the code of an address", () => {
  test("has the three corners that phones look for", () => {
    const { side, dark } = codeOf("https://barometron.example/s/9f3k");
    const is = (x: number, y: number) => dark.some(([a, b]) => a === x && b === y);
    for (const [x, y] of [
      [0, 0],
      [side - 7, 0],
      [0, side - 7],
    ] as const) {
      for (let i = 0; i < 7; i += 1)
        expect([is(x + i, y), is(x, y + i), is(x + i, y + 6), is(x + 6, y + i)]).toEqual([
          true,
          true,
          true,
          true,
        ]);
      expect([is(x + 1, y + 1), is(x + 3, y + 3)]).toEqual([false, true]);
    }
  });
  test("another address has another", () =>
    expect(codeOf("https://a.example").dark).not.toEqual(codeOf("https://b.example").dark));
});
