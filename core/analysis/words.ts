import { ERROR_SOURCES, type ErrorSource } from "#core/battery/readings";
import type { UsableEnergy } from "#core/battery";
import { countedText, type Reading, type ReadingKindName } from "#core/battery/readings";
import { fixed, unitToken, Z_95 } from "#core/base";

/**
 * "a, b and c".
 *
 * @example listed(["percent readings", "volts at rest", "a bar"]) === "percent readings, volts at rest and a bar"
 */
export function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;
}

/**
 * Readings counted by kind, most first: "12 percent readings, 2 voltage readings at rest and a full start".
 *
 * @example countedWords([{ kind: "percent" }, { kind: "percent" }]) === "2 percent readings"
 */
export function countedWords(readings: readonly { readonly kind: string }[]): string {
  const counts = new Map<string, number>();
  for (const { kind } of readings) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return listed(
    [...counts]
      .sort((a, b) => b[1] - a[1])
      .map(([kind, count]) => countedText(kind as ReadingKindName, count)),
  );
}

/** What a figure rests on: "from 12 percent readings, 2 voltage readings at rest, a full start and the cut-off". */
export function evidenceWords(readings: readonly Reading[]): string {
  return readings.length
    ? `from ${countedWords(readings)}`
    : "no reading yet: this is only what is assumed of any bike";
}

/** Where the usable energy comes from. */
export function capacityWords({ from, labelWh, share }: UsableEnergy): string {
  return from === "measured"
    ? "measured, less the cold and what a ride's currents leave in it, weighed with this ride"
    : `${fixed(share * 100, 0)} % of the label's ${fixed(labelWh, 0)} Wh, less the cold, weighed with this ride`;
}

/** Why plain and best part, from the numbers. Wh per metre. */
export function differenceSentence(
  plainWhPerM: number,
  bestWhPerM: number,
  bestSd: number,
  labelWh: number,
  capacityWh: number,
): string {
  const gap = plainWhPerM - bestWhPerM;
  const label = labelWh / capacityWh - 1;
  const doubt = Z_95 * bestSd;
  const by = unitToken(Math.abs(gap), "energyPerDistance", 1);
  if (Math.abs(gap) < 0.25 * doubt) return "Plain and best agree within a quarter of the plus-or-minus.";
  const side = gap > 0 ? "more" : "less";
  if (
    Math.abs(label) > 0.02 &&
    label > 0 === gap > 0 &&
    Math.abs(bestWhPerM * (1 + label) - plainWhPerM) < Math.abs(plainWhPerM - bestWhPerM)
  )
    return `Plain is ${by} ${side} because it trusts the label's ${fixed(labelWh, 0)} Wh; best puts usable energy at ${fixed(capacityWh, 0)} Wh.`;
  return `Plain is ${by} ${side} because it rests on the first and last reading alone; best weighs every reading by its error.`;
}

/**
 * An error source in plain words. Example: `sourceWords("gauge smooth") === "gauge steps unevenly"`.
 *
 * @example sourceWords("capacity") === "what the pack holds"
 */
export const sourceWords = (source: ErrorSource): string => ERROR_SOURCES[source];
