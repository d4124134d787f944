import { farText, nth } from "#core/base";
import type { RoadFit } from "./fitTypes.ts";

/** A parameter is no surer than assumed when it keeps this share of its prior sd. */
const UNCHANGED = 0.9;

/**
 * What a fit knows and does not, in sentences.
 *
 * @param dragAndMotor how far drag and motor move together: 1 where the rows cannot tell them apart
 */
export function fitWords(
  fit: Pick<RoadFit, "parameters" | "rows" | "chi2PerRow">,
  dragAndMotor: number,
): readonly string[] {
  const percent = (share: number) => `${(100 * share).toFixed(0)} %`;
  const ways = fit.rows.filter(({ oneWay }) => oneWay).length;
  const off = fit.rows.filter(({ outlier }) => outlier);
  return [
    ...fit.parameters.map(({ name, value, assumed, rows }) => {
      const share = value.sd / value.mean;
      const before = assumed.sd / assumed.mean;
      if (rows === 0)
        return `${nth(name, 0).toUpperCase()}${name.slice(1)} was never tested: it is as assumed, to ${percent(before)}.`;
      if (share > UNCHANGED * before)
        return `${nth(name, 0).toUpperCase()}${name.slice(1)} is known to ${percent(share)}, ${percent(before)} before: the tests taught little.`;
      return `${nth(name, 0).toUpperCase()}${name.slice(1)} is known to ${percent(share)}.`;
    }),
    ...(dragAndMotor > 0.9
      ? ["Drag and motor trade against one another: rows at more different speeds would tell them apart."]
      : []),
    ...(ways > 0
      ? [
          `${ways === 1 ? "One row was" : `${ways} rows were`} ridden one way only: wind and slope may be in ${ways === 1 ? "it" : "them"}.`,
        ]
      : []),
    ...(fit.chi2PerRow > 1.5
      ? [
          `The rows scatter ${Math.sqrt(fit.chi2PerRow).toFixed(1)} times as far as their errors allow: the plus-or-minus is that much wider.`,
        ]
      : []),
    ...off.map(
      ({ name, standing }) =>
        `${name} is ${farText(standing)} too ${standing > 0 ? "high" : "low"} for the rest.`,
    ),
  ];
}
