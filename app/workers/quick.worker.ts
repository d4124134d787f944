import { v7 as uuidv7 } from "uuid";
import { quickFigure } from "#core/analysis/quick";
import { quickNotes } from "#core/narration";
import type { Estimate, Problem } from "#core/base";

/** Reckons a few words into a figure as they are typed. */
export interface QuickAsk {
  readonly id: number;
  readonly notes: string;
  readonly day: string;
}

/** The figure, what would make it surer, and how the words were taken. */
export interface QuickFigure {
  readonly whPerM: Estimate;
  readonly because: string;
  readonly rangeM: Estimate | null;
  readonly surer: readonly { readonly what: string; readonly minutes: number; readonly sdLeft: number }[];
  readonly says: readonly string[];
  readonly unread: readonly string[];
  readonly assumed: readonly string[];
  /** What is odd of it. */
  readonly notices: readonly string[];
}

export interface QuickTold {
  readonly id: number;
  readonly figure: QuickFigure | null;
  readonly problems: readonly Problem[];
}

/** Things that would make it surer which are told. */
const MOST_SURER = 3;

self.onmessage = ({ data: { id, notes, day } }: MessageEvent<QuickAsk>) => {
  const found = quickFigure(quickNotes(notes), day, () => uuidv7());
  if (!found.ok) {
    self.postMessage({ id, figure: null, problems: found.problems } satisfies QuickTold);
    return;
  }
  const { quick, results } = found.value;
  const figure: QuickFigure = {
    whPerM: results.best.value,
    because: results.best.because,
    rangeM: results.rangeTotal?.value ?? null,
    surer: results.surer.slice(0, MOST_SURER).map(({ what, minutes, sdLeft }) => ({ what, minutes, sdLeft })),
    says: quick.says,
    unread: quick.unread,
    assumed: quick.assumed,
    notices: results.notices,
  };
  self.postMessage({ id, figure, problems: [] } satisfies QuickTold);
};
