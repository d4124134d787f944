import { SECTIONS, sheetOptionsSchema, TOPICS, type SheetOptions } from "#core/telling";

const WHAT_PUTS_OUT = "left out";
/** What a remark can be put under. */
export const PLACES = [...TOPICS, WHAT_PUTS_OUT] as const;

/** Names of the composer's fields that hold what a remark is put under. */
export const sortingField = (rootId: string) => `sort.${rootId}`;

/** The composer's form read over what was chosen before: what the form does not show stays. */
export function readOptions(form: FormData, before: SheetOptions) {
  const has = (name: string) => form.has(name);
  const text = (name: string, was: string) => (has(name) ? String(form.get(name)) : was);
  const sections = Object.keys(SECTIONS[before.kind]);
  const on = form.getAll("on").map(String);
  const sorted = [...form.entries()].flatMap(([name, value]) =>
    name.startsWith("sort.") && value !== "" ? [[name.slice("sort.".length), value] as const] : [],
  );
  const [a, b] = [text("a", ""), text("b", "")];
  return sheetOptionsSchema.safeParse({
    ...before,
    title: text("title", before.title),
    words: text("words", before.words).replaceAll("\r\n", "\n"),
    address: text("address", before.address),
    under: text("under", before.under),
    paper: text("paper", before.paper),
    off: has("sections") ? sections.filter((key) => !on.includes(key)) : before.off,
    sorting: has("sorted") ? Object.fromEntries(sorted) : before.sorting,
    pair: has("a") ? (a && b ? [a, b] : null) : before.pair,
  });
}

/** What the composer's form shows of what was chosen. */
export const optionTexts = ({ title, words, address, under, paper, pair }: SheetOptions) => ({
  ...{ title, words, address, under, paper },
  a: pair?.[0] ?? "",
  b: pair?.[1] ?? "",
});

/** A page as it begins: all its sections but those that few want. */
export const firstOptions = (kind: SheetOptions["kind"], title: string, under = ""): SheetOptions =>
  sheetOptionsSchema.parse({ kind, title: title.slice(0, 160), under });
