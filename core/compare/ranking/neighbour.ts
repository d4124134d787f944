import { certaintyOf, type Certainty } from "#core/base";
import { chanceLess } from "./standings.ts";
import { differenceOf, type ErrorComponents } from "../errorComponents.ts";

/** A figure that stands next to another in an order, and how sure that order is. */
export interface Neighbour<T> {
  readonly row: T;
  /** The figure's own place, from 1. */
  readonly place: number;
  /** Whether the neighbour stands before it. */
  readonly before: boolean;
  /** Chance that the two truly stand the other way round. */
  readonly chance: number;
  readonly certainty: Certainty;
  /** The figure less its neighbour's, errors told apart. */
  readonly difference: ErrorComponents;
}

/**
 * The one whose place next to a figure is least sure: what would settle their difference would settle the rank.
 *
 * @param others in the same unit, less being before; @returns null where there is none
 */
export function neighbourOf<T extends { readonly figure: ErrorComponents }>(
  figure: ErrorComponents,
  others: readonly T[],
): Neighbour<T> | null {
  const place = 1 + others.filter((row) => row.figure.mean < figure.mean).length;
  const found = others.map((row): Neighbour<T> => {
    const before = row.figure.mean < figure.mean;
    const chance = before ? chanceLess(figure, row.figure) : chanceLess(row.figure, figure);
    return {
      row,
      place,
      before,
      chance,
      certainty: certaintyOf(chance),
      difference: differenceOf(figure, row.figure),
    };
  });
  return found.reduce<Neighbour<T> | null>(
    (least, each) => (least && least.chance >= each.chance ? least : each),
    null,
  );
}
