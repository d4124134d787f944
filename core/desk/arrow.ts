import { rowAt, nth, num, backSubstitute, choleskyOf, forwardSubstitute, type Lower } from "#core/base";

/** Where an unknown stands: within a block, or in the border that all blocks touch (block -1). */
export interface Place {
  readonly block: number;
  readonly at: number;
}

const zeros = (rows: number, columns: number) =>
  Array.from({ length: rows }, () => new Float64Array(columns));

interface Block {
  readonly own: Float64Array[];
  /** By unknown of the border. */
  readonly withBorder: Float64Array[];
  readonly right: Float64Array;
}

/** A linear form: a weight for each of some unknowns. */
export type ArrowForm = readonly (readonly [place: Place, weight: number])[];

/** A form against the factor: its squares sum to the variance of the form. */
export interface Whitened {
  readonly block: number;
  readonly own: Float64Array;
  readonly border: Float64Array;
}

/** The posterior of normal equations, ready to be asked. */
export interface Factored {
  readonly valueAt: (place: Place) => number;
  /** Of a form within one block and the border. */
  readonly whiten: (form: ArrowForm) => Whitened;
  /** Covariances of the unknowns that a form weighs with the form itself: what each carries of its variance. */
  readonly covarianceWith: (form: ArrowForm) => (place: Place) => number;
}

/**
 * Normal equations whose matrix is an arrow: each bike's own unknowns touch one another and the border (riders, packs that
 * travel, grounds), never another bike's. Solved block by block, so that the work grows with the bikes, not with their cube.
 */
export class ArrowEquations {
  private readonly blocks: readonly Block[];
  private readonly edge: Float64Array[];
  private readonly edgeRight: Float64Array;

  constructor(sizes: readonly number[], border: number) {
    this.blocks = sizes.map((n) => ({
      own: zeros(n, n),
      withBorder: zeros(border, n),
      right: new Float64Array(n),
    }));
    this.edge = zeros(border, border);
    this.edgeRight = new Float64Array(border);
  }

  /** Forgets every row: the same equations are built anew at each step of a solve. */
  clear(): void {
    for (const { own, withBorder, right } of this.blocks) {
      for (const row of own) row.fill(0);
      for (const column of withBorder) column.fill(0);
      right.fill(0);
    }
    for (const row of this.edge) row.fill(0);
    this.edgeRight.fill(0);
  }

  /** Adds one row, form = right, with sd 1. */
  add(form: ArrowForm, right: number): void {
    for (const [place, weight] of form) {
      const block = place.block < 0 ? null : this.blocks[place.block]!;
      (block ? block.right : this.edgeRight)[place.at]! += weight * right;
      for (const [other, by] of form) {
        const product = weight * by;
        if (block === null) {
          if (other.block < 0) rowAt(this.edge, place.at)[other.at]! += product;
        } else if (other.block < 0) rowAt(block.withBorder, other.at)[place.at]! += product;
        else rowAt(block.own, place.at)[other.at]! += product;
      }
    }
  }

  factor(): Factored {
    const { edge } = this;
    const left = edge.map((row) => Float64Array.from(row));
    const leftRight = Float64Array.from(this.edgeRight);
    const border = edge.length;
    const lowers: Lower[] = [];
    const columns: Float64Array[][] = [];
    const rights: Float64Array[] = [];
    for (const { own, withBorder, right } of this.blocks) {
      const lower = choleskyOf(own);
      const half = withBorder.map((column) => forwardSubstitute(lower, column));
      const halfRight = forwardSubstitute(lower, right);
      for (let i = 0; i < border; i += 1) {
        leftRight[i]! -= dot(rowAt(half, i), halfRight);
        // Of a symmetric matrix the lower half is read.
        for (let j = 0; j <= i; j += 1) rowAt(left, i)[j]! -= dot(rowAt(half, i), rowAt(half, j));
      }
      lowers.push(lower);
      columns.push(half);
      rights.push(halfRight);
    }
    const edgeLower = choleskyOf(left);
    const edgeValue = backSubstitute(edgeLower, forwardSubstitute(edgeLower, leftRight));
    /** Back through a block: what it says where the border stands at some values. */
    const within = (block: number, halfRight: Float64Array, atBorder: Float64Array) => {
      const rest = Float64Array.from(halfRight);
      nth(columns, block).forEach((column, c) => {
        for (let i = 0; i < rest.length; i += 1) rest[i]! -= nth(column, i) * num(atBorder, c);
      });
      return backSubstitute(lowers[block]!, rest);
    };
    const values = this.blocks.map((_, block) => within(block, rowAt(rights, block), edgeValue));
    const whiten = (form: ArrowForm): Whitened => {
      const block = form.find(([place]) => place.block >= 0)?.[0].block ?? -1;
      const own = new Float64Array(block < 0 ? 0 : this.blocks[block]!.right.length);
      const onBorder = new Float64Array(border);
      for (const [place, weight] of form) (place.block < 0 ? onBorder : own)[place.at]! += weight;
      if (block < 0) return { block, own, border: forwardSubstitute(edgeLower, onBorder) };
      const half = forwardSubstitute(lowers[block]!, own);
      nth(columns, block).forEach((column, c) => (onBorder[c]! -= dot(column, half)));
      return { block, own: half, border: forwardSubstitute(edgeLower, onBorder) };
    };
    return {
      valueAt: ({ block, at }) => nth(block < 0 ? edgeValue : rowAt(values, block), at),
      whiten,
      covarianceWith: (form) => {
        const white = whiten(form);
        const atBorder = backSubstitute(edgeLower, white.border);
        const inside = white.block < 0 ? null : within(white.block, white.own, atBorder);
        return ({ block, at }) =>
          block < 0 ? num(atBorder, at) : block === white.block ? num(inside!, at) : 0;
      },
    };
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i += 1) sum += num(a, i) * num(b, i);
  return sum;
}

/** Variance of a whitened form. */
export const whitenedVariance = ({ own, border }: Whitened): number => dot(own, own) + dot(border, border);
