import type { DimensionName, Estimate, System } from "#core/base";

/**
 * What leaves the desk to be read: a page as data. Its texts hold quantities as tokens in SI, so that one page is read in
 * miles or in kilometres; screen, paper, one HTML file and plain text are made from it.
 */
export interface SheetDocument {
  readonly kind: SheetKind;
  readonly title: string;
  /** Conditions in one sentence. */
  readonly line: string;
  readonly sections: readonly SheetSection[];
}

export const SHEET_KINDS = ["test", "comparison", "customer"] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

export interface SheetSection {
  readonly key: string;
  /** Null where it needs none. */
  readonly heading: string | null;
  readonly blocks: readonly SheetBlock[];
}

/** A figure in large, with what it is. */
export interface SheetFigure {
  readonly key: string;
  readonly value: Estimate;
  readonly dimension: DimensionName;
  readonly says: string;
  /** Reckoned beyond what was measured. */
  readonly pencil: boolean;
  /** A difference, which may lie on either side of nought. */
  readonly signed?: boolean;
}

export interface SheetLine {
  readonly label: string;
  readonly text: string;
  readonly tone?: "bad";
}

export interface SheetTable {
  readonly caption: string;
  readonly headings: readonly string[];
  /** As many cells a row as there are headings. */
  readonly rows: readonly (readonly string[])[];
}

export interface SheetPhotograph {
  readonly id: string;
  readonly caption: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

export type SheetBlock =
  | { readonly kind: "figures"; readonly figures: readonly SheetFigure[] }
  /** A paragraph. */
  | { readonly kind: "text"; readonly text: string }
  | { readonly kind: "list"; readonly items: readonly string[] }
  | { readonly kind: "lines"; readonly lines: readonly SheetLine[] }
  | ({ readonly kind: "table" } & SheetTable)
  /** A picture by its name, drawn by whoever shows the page; and what it shows, in words. */
  | { readonly kind: "drawing"; readonly name: string; readonly shows: string }
  /** The tester's own paragraphs, Markdown. */
  | { readonly kind: "words"; readonly markdown: string }
  /** Photographs by their ids, in the order in which they were added. */
  | { readonly kind: "photographs"; readonly photographs: readonly SheetPhotograph[] }
  /** Address of the data, to be shown with its code. */
  | { readonly kind: "address"; readonly address: string };

/** The figures of a page by key, for what has changed since. */
export const figuresOf = ({ sections }: SheetDocument): readonly SheetFigure[] =>
  sections.flatMap(({ blocks }) =>
    blocks.flatMap((block) => (block.kind === "figures" ? block.figures : [])),
  );

/** A section, unless there is nothing in it. */
export function sectionOf(
  key: string,
  heading: string | null,
  ...blocks: readonly (SheetBlock | null)[]
): readonly SheetSection[] {
  const there = blocks.filter((block) => block !== null);
  return there.length ? [{ key, heading, blocks: there }] : [];
}

/** Photographs of a page; null without any. */
export const photographsBlock = (photographs: readonly SheetPhotograph[]): SheetBlock | null =>
  photographs.length ? { kind: "photographs", photographs } : null;

/** A paragraph of sentences; null without any. */
export const paragraph = (sentences: readonly string[]): SheetBlock | null =>
  sentences.length ? { kind: "text", text: sentences.join(" ") } : null;

/** A page as it was published, with all it was written from. */
export interface EditionBody {
  readonly document: SheetDocument;
  /** Its drawings by name, in each system of units, as SVG. */
  readonly drawings: Readonly<Record<string, Readonly<Record<System, string>>>>;
  readonly paper: string;
  /** Name and version of the conditions it is under; null where it is as ridden. */
  readonly reference: string | null;
  /** Version of the method. */
  readonly method: string;
  /** What `calc` reads to give the same figures; null for pages of no test. */
  readonly bundle: unknown;
}
