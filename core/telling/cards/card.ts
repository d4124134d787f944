import type { DimensionName, Estimate } from "#core/base";
import type { SheetFigure } from "../sheet/document.ts";

/**
 * What stands on a picture for a film, as data: texts hold quantities as tokens in SI, so that one card is drawn in miles or
 * in kilometres.
 */
export interface Card {
  readonly title: string;
  readonly line: string;
  readonly content: CardContent;
}

/** One figure among others on a scale. */
export interface CardRow {
  readonly name: string;
  readonly value: Estimate;
  /** Its span where that is not even to both sides. */
  readonly span?: { readonly low: number; readonly high: number };
  /** What is claimed, in the figure's own dimension. */
  readonly claimed?: { readonly low: number; readonly high: number };
  /** A sketch. */
  readonly hollow?: boolean;
}

/** Energy over speed on one ground. */
export interface CardCurve {
  readonly name: string;
  readonly speedMps: readonly number[];
  readonly whPerM: readonly Estimate[];
}

export type CardContent =
  | { readonly kind: "figures"; readonly figures: readonly SheetFigure[] }
  | {
      readonly kind: "rows";
      readonly dimension: DimensionName;
      readonly rows: readonly CardRow[];
      readonly says: string;
    }
  | {
      readonly kind: "curves";
      readonly curves: readonly CardCurve[];
      readonly spots: readonly {
        readonly speedMps: number;
        readonly whPerM: Estimate;
        readonly hollow: boolean;
      }[];
    }
  /** The strip of a test, drawn by whoever has it. */
  | { readonly kind: "strip" };

export const CARD_KINDS = [
  "headline",
  "strip",
  "standings",
  "pair",
  "claim",
  "ranges",
  "sweep",
  "climbs",
] as const;
export type CardKind = (typeof CARD_KINDS)[number];

/** Sizes of a card, pixels: lying, standing. */
export const CARD_SIZES = { wide: [1920, 1080], tall: [1080, 1920] } as const;
export type CardSize = keyof typeof CARD_SIZES;
