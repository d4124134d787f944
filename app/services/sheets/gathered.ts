import type { System } from "#core/base";
import type { SheetDocument } from "#core/telling";

/** Drawings of a page by name, in each system of units, as SVG. */
export type Drawings = Readonly<Record<string, Readonly<Record<System, string>>>>;

/** Photographs of a page by their ids. */
export type Photographs = Readonly<Record<string, { readonly type: string; readonly bytes: Uint8Array }>>;

/** A page as it is now, with all it was written from. */
export interface Gathered {
  readonly document: SheetDocument;
  readonly drawings: Drawings;
  /** Hash of everything it was written from. */
  readonly inputs: string;
  /** What `calc` reads to give the same figures; null for pages of no test. */
  readonly bundle: unknown;
  /** Name and version of the conditions it is under; null where it is as ridden. */
  readonly reference: string | null;
}

/** A drawing's width on a page, in the pixels of its own units: about what paper is wide between its margins. */
export const DRAWING_WIDTH = 720;

/** Draws something once in each system of units. */
export const inBoth = (draw: (system: System) => string): Readonly<Record<System, string>> => ({
  imperial: draw("imperial"),
  metric: draw("metric"),
});
