import { z } from "zod";
import { text } from "#core/base";
import { SHEET_KINDS } from "./document.ts";
import { TOPICS } from "./remarks.ts";

export const PAPERS = ["A4", "Letter"] as const;
export type Paper = (typeof PAPERS)[number];

/** Sections a page may show, by the kind of page, in their order; and what the composer calls them. */
export const SECTIONS = {
  test: {
    headline: "Headline",
    method: "How it was measured",
    strip: "The strip, small",
    parts: "By level and ground",
    claim: "Claim: as ridden first",
    remarks: "Remarks by mile",
    words: "Own words",
    photographs: "Photographs",
    caveats: "What to know of it",
    change: "What would change it",
    readings: "The readings",
    address: "Address and code of the data",
  },
  comparison: {
    standings: "Standings",
    pair: "Two of them, set against each other",
    claims: "Claims",
    ranges: "Ranges",
    sweeps: "Sweeps",
    climbs: "Climbs",
    words: "Own words",
    photographs: "Photographs",
    caveats: "What to know of it",
    address: "Address and code of the data",
  },
  customer: {
    shown: "What the tester showed",
    health: "Brought to one temperature",
    pack: "The pack",
    course: "How it went",
    errors: "Error list",
    words: "Own words",
    photographs: "Photographs",
    verdict: "Verdict",
    cautions: "Cautions",
    address: "Address and code of the data",
  },
} as const;

/** Sections that a page begins without. */
const OFF_AT_FIRST: readonly string[] = ["readings"];

const LONGEST_WORDS = 20_000;

/** What a tester chose for a page. */
export const sheetOptionsSchema = z.object({
  kind: z.enum(SHEET_KINDS),
  title: text("Type a title.")
    .trim()
    .min(1, "Type a title, such as: Range of the levee run.")
    .max(160, "A title has at most 160 characters."),
  /** Keys of the sections that are switched off. */
  off: z
    .array(z.string().max(40))
    .max(40)
    .default([...OFF_AT_FIRST]),
  /** The tester's own paragraphs, Markdown. */
  words: text().max(LONGEST_WORDS, "Own words are at most 20,000 characters.").default(""),
  /** Where a remark belongs, by its entry; what is not named stands where its words put it. */
  sorting: z.record(z.string().max(80), z.enum([...TOPICS, "left out"])).default({}),
  paper: z.enum(PAPERS).default("A4"),
  /** Where the page and its data are found; no code is drawn without. */
  address: text()
    .trim()
    .max(300)
    .refine(
      (value) => value === "" || URL.canParse(value),
      "An address begins with https:// and names a page.",
    )
    .default(""),
  /** A comparison: the conditions it is under, and the two tests set against each other. */
  under: text().trim().max(80).default(""),
  pair: z.tuple([z.uuid(), z.uuid()]).nullable().default(null),
});
export type SheetOptions = z.infer<typeof sheetOptionsSchema>;

/**
 * Whether a section is to be shown.
 *
 * @example isOn({ off: ["log"] }, "log") === false
 */
export const isOn = ({ off }: Pick<SheetOptions, "off">, key: string): boolean => !off.includes(key);
