import type { KeyboardEvent } from "react";

/** The ideas that are this application's own, each explained where it first meets the eye. */
export const OWN_WORDS = {
  strip:
    "A ride drawn as a strip of road from start to end, with everything that was read along it. The energy left falls from left to right; each reading has the shape of its kind.",
  ledger:
    "The account of a ride: each reading says how much energy was used, each has its own error, and all of them together give one figure. A reading that is precise counts for much, one that is not for little.",
  best: "The one figure that all readings together make likely, each counted by how far it can be trusted. The true figure lies in its span 95 times in 100.",
  plain:
    "What one would work out on paper: the label's energy times the percent that was used, over the distance. It has no ±, because nothing in it says how far it may be off.",
  pencil:
    "Slanted and in ochre: assumed or worked out, not measured. Type what you know in its place and it becomes ink.",
  "run sheet":
    "The plan on one page for the ride: what to bring, where to look, what the display should show there, and where to turn.",
  surer:
    "What could be measured or looked up next, and how much smaller the ± would then be, for each hour of a person's work.",
  "possible places":
    "A bike may stand at any of its possible places: with what was measured, the true order lies within them nine times in ten. Two whose places overlap are not distinguishable yet. More or better readings narrow them.",
  bridge:
    "From the figure as it was measured to the figure under the reference, one step for each thing that differed: wind, climb, weight, speed and so on.",
  sheet:
    "One page that tells a test, a comparison or a pack's health to somebody else. Its sentences are written from the log; you choose which of them stand there and add your own. Published, it keeps its figures whatever the desk learns later.",
} as const;

export type OwnWord = keyof typeof OWN_WORDS;

/** Closes the explanation that is open, and leaves the focus on its button. */
function closeOnEscape(event: KeyboardEvent<HTMLDetailsElement>) {
  if (event.key !== "Escape" || !event.currentTarget.open) return;
  event.stopPropagation();
  event.currentTarget.open = false;
  event.currentTarget.querySelector("summary")?.focus();
}

/** "What is this" beside an idea of one's own: its explanation, unfolded on demand, with or without script. */
export function WhatIs({ word }: { readonly word: OwnWord }) {
  return (
    <details className="text-sm font-normal print:hidden" onKeyDown={closeOnEscape}>
      <summary
        className="inline-block min-h-6 cursor-pointer list-none text-spruce underline underline-offset-3"
        aria-label={`What is this: ${word}`}
      >
        what is this
      </summary>
      <p className="max-w-prose text-ink">{OWN_WORDS[word]}</p>
    </details>
  );
}
