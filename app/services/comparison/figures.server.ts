import { setImmediate } from "node:timers/promises";
import { figureFor, type Compared, type FigureAsk, type FigureOnBoard } from "#core/compare";
import type { Result } from "#core/problems";

/** Different things asked of a test whose answers are remembered. */
const MOST_ASKS = 16;
/** How long one slice of figures may hold the thread, ms. */
const SLICE_MS = 20;

/** Figures by test as it is compared now: a test that changes is another object, and its figures go with the old one. */
const figures = new WeakMap<Compared, Map<string, Result<FigureOnBoard>>>();

const keyOf = ({ reference, level, ground }: FigureAsk) =>
  JSON.stringify([reference?.name, reference?.version, level, ground]);

/** A test's figure, reckoned once for each thing asked of it: after a change only the changed test's is reckoned anew. */
export function rememberedFigure(compared: Compared, ask: FigureAsk): Result<FigureOnBoard> {
  let own = figures.get(compared);
  if (!own) figures.set(compared, (own = new Map()));
  const key = keyOf(ask);
  let figure = own.get(key);
  if (!figure) {
    figure = figureFor(compared, ask);
    own.set(key, figure);
    if (own.size > MOST_ASKS) own.delete(own.keys().next().value!);
  }
  return figure;
}

/** Reckons the figures of many tests in slices, so that other work on this thread goes on between them. */
export async function figureAhead(tests: readonly Compared[], ask: FigureAsk): Promise<void> {
  let beganMs = performance.now();
  for (const each of tests) {
    rememberedFigure(each, ask);
    if (performance.now() - beganMs < SLICE_MS) continue;
    await setImmediate();
    beganMs = performance.now();
  }
}
