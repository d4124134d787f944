import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { analyseTest } from "#core/analysis";
import { makeStandin } from "#core/simulator";
import { CARD_SIZES, headlineCard, stripCard, type Card } from "#core/telling";
import { writeFonts } from "../../../command/fonts";
import { stripResults } from "../strip/view";
import { cardSvg } from "./card";
import { COLOURS, DRAWING_THEMES, inColours } from "./colours";
import { wrapped } from "./letters";
import { pngOf } from "./png.server";
import { stripSvg } from "./svg";

const fonts = mkdtempSync(join(tmpdir(), "barometron-fonts-"));
const record = makeStandin(8, { what: "cards", untilEmpty: true }).record;
const analysed = analyseTest(record);
if (!analysed.ok) throw new Error("the stand-in has no figure");
const results = analysed.value;
const strip = { results: stripResults(results), levels: record.bike.levels, system: "imperial" as const };

beforeAll(async () => {
  process.env["BAROMETRON_FONTS"] = fonts;
  await writeFonts(fonts);
});
afterAll(() => rmSync(fonts, { recursive: true }));

const LOOK = { size: "wide", theme: "light", system: "imperial" } as const;
/** Tags of a drawing that open, and that close. */
function tagsOf(svg: string) {
  const tags = svg.match(/<[^>]+>/g) ?? [];
  const closing = tags.filter((tag) => tag.startsWith("</")).length;
  return { closing, opening: tags.filter((tag) => !tag.endsWith("/>")).length - closing };
}
const textOf = (svg: string) => svg.replace(/<[^>]+>/g, "\n");

describe("colours of drawings", () => {
  test("are those of the pages, by day and at dusk", () => {
    const css = readFileSync("app/app.css", "utf8");
    const [day, dusk] = [css.slice(css.indexOf("@theme")), css.slice(css.indexOf('data-theme="dusk"'))];
    for (const [role, colour] of Object.entries(COLOURS.light))
      expect(day).toContain(`--color-${role}: ${colour};`);
    for (const [role, colour] of Object.entries(COLOURS.dusk))
      expect(dusk).toContain(`--color-${role}: ${colour};`);
  });
  test("nothing is left that only a page could say", () => {
    for (const theme of DRAWING_THEMES)
      for (const svg of [
        stripSvg(strip, 700, theme),
        cardSvg(stripCard(record, results), strip, { ...LOOK, theme }),
      ])
        expect(svg).not.toMatch(/var\(|currentColor|NaN|undefined|class=/);
    expect(inColours("var(--color-none)", "light")).toBe("var(--color-none)");
  });
});

describe("cards", () => {
  const card = headlineCard(record, results);
  test("carry the figure with its plus-or-minus, in the units asked for", () => {
    expect(textOf(cardSvg(card, null, LOOK))).toMatch(/± [\d.]+ Wh\/mi/);
    expect(textOf(cardSvg(card, null, { ...LOOK, system: "metric" }))).toMatch(/± [\d.]+ Wh\/km/);
  });
  test("hold any title: no letter of it is taken for markup, and it ends where it has no room", () =>
    fc.assert(
      fc.property(fc.string({ maxLength: 160, unit: "grapheme" }), (title) => {
        const svg = cardSvg({ ...card, title } as Card, null, LOOK);
        expect(svg.match(/<script|<image/g)).toBeNull();
        const { opening, closing } = tagsOf(svg);
        expect(opening).toBe(closing);
      }),
    ));
  test("name how many rows have no room", () => {
    const rows = Array.from({ length: 40 }, (_, i) => ({
      name: `bike ${i}`,
      value: { mean: 0.008 + i / 1e4, sd: 0.0004 },
    }));
    const many: Card = {
      title: "Many",
      line: "",
      content: { kind: "rows", dimension: "energyPerDistance", rows, says: "least first" },
    };
    for (const size of ["wide", "tall"] as const) {
      const text = textOf(cardSvg(many, null, { ...LOOK, size }));
      const shown = text.match(/bike \d+/g)!.length;
      expect(text).toContain(`${40 - shown} more are not shown`);
    }
  });
  test("are pictures of the size films have", () => {
    for (const size of ["wide", "tall"] as const) {
      const png = pngOf(cardSvg(card, null, { ...LOOK, size }), CARD_SIZES[size][0]);
      const view = new DataView(png.buffer, png.byteOffset);
      expect([view.getUint32(16), view.getUint32(20)]).toEqual([...CARD_SIZES[size]]);
    }
  });
  test("one that lies over a film is seen through", () => {
    expect(cardSvg(card, null, { ...LOOK, theme: "transparent" })).toContain("fill-opacity");
    expect(cardSvg(card, null, LOOK).split("<text")[0]).not.toContain("fill-opacity");
  });
  test("without the letters a sentence says what to do", () => {
    process.env["BAROMETRON_FONTS"] = join(fonts, "nowhere");
    try {
      expect(() => pngOf("<svg xmlns='http://www.w3.org/2000/svg'/>", 100)).toThrow(
        /stop Barometron and start it again/,
      );
    } finally {
      process.env["BAROMETRON_FONTS"] = fonts;
    }
  });
});

describe("lines of a text", () => {
  test("are as many as there is room for, and lose no word before that", () =>
    fc.assert(
      fc.property(
        fc.array(fc.stringMatching(/^[a-z]{1,12}$/), { maxLength: 30 }),
        fc.integer({ min: 1, max: 4 }),
        (words, most) => {
          const lines = wrapped(words.join(" "), 600, 30, most);
          expect(lines.length).toBeLessThanOrEqual(most);
          if (!lines.some((line) => line.endsWith("…"))) expect(lines.join(" ")).toBe(words.join(" "));
        },
      ),
    ));
});
