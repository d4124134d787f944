import { setImmediate } from "node:timers/promises";
import { figureFor, type Compared, type FigureAsk, type FigureOnBoard } from "#core/compare";
import type { DeskPosterior } from "#core/desk";
import type { Result } from "#core/base";

/** Different things asked of a test whose answers are remembered. */
const MOST_ASKS = 16;
/** How long one slice of figures may hold the thread, ms. */
const SLICE_MS = 20;

type Known = Map<string, { readonly desk: DeskPosterior | null; readonly figure: Result<FigureOnBoard> }>;

/** Figures by test as it is compared now: a test that changes is another object, and its figures go with the old one. */
const figures = new WeakMap<Compared, Known>();

const keyOf = ({ reference, level, ground }: FigureAsk) =>
  JSON.stringify([reference?.name, reference?.version, level, ground]);

/** A test's figure, reckoned once for each thing asked of it: as ridden while the test is the same, else while the desk is. */
export function rememberedFigure(
  desk: DeskPosterior,
  compared: Compared,
  ask: FigureAsk,
): Result<FigureOnBoard> {
  let own = figures.get(compared);
  if (!own) figures.set(compared, (own = new Map()));
  const key = keyOf(ask);
  const known = own.get(key);
  const restsOn = ask.reference ? desk : null;
  if (known?.desk === restsOn && known) return known.figure;
  const figure = figureFor(desk, compared, ask);
  own.set(key, { desk: restsOn, figure });
  if (own.size > MOST_ASKS) own.delete(own.keys().next().value!);
  return figure;
}

/** Reckons the figures of many tests in slices, so that other work on this thread goes on between them. */
export async function figureAhead(
  desk: DeskPosterior,
  tests: readonly Compared[],
  ask: FigureAsk,
): Promise<void> {
  let beganMs = performance.now();
  for (const each of tests) {
    rememberedFigure(desk, each, ask);
    if (performance.now() - beganMs < SLICE_MS) continue;
    await setImmediate();
    beganMs = performance.now();
  }
}
