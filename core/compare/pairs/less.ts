import { certaintyOf, oddsText } from "#core/base";

/**
 * Which of two uses less and how sure that is, in a sentence.
 *
 * @param chanceA that the first uses less; @param verb "used" of what was ridden
 * @example lessText(0.991, "A", "B") === "A uses less: 99 in 100."
 * @example lessText(0.12, "A", "B") === "B likely uses less: 88 in 100."
 * @example lessText(0.5, "A", "B") === "Open which uses less: A with 50 in 100."
 */
export function lessText(chanceA: number, a: string, b: string, verb = "uses"): string {
  const [name, chance] = chanceA >= 0.5 ? [a, chanceA] : [b, 1 - chanceA];
  switch (certaintyOf(chance)) {
    case "sure":
      return `${name} ${verb} less: ${oddsText(chance)}.`;
    case "likely":
      return `${name} likely ${verb} less: ${oddsText(chance)}.`;
    case "open":
      return `Open which ${verb} less: ${name} with ${oddsText(chance)}.`;
  }
}

/**
 * The same in a table's cell.
 *
 * @example lessShort(0.12) === "B less: 88 in 100"
 */
export const lessShort = (chanceA: number): string =>
  `${chanceA >= 0.5 ? "A" : "B"} less: ${oddsText(Math.max(chanceA, 1 - chanceA))}`;
