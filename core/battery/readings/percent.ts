import { z } from "zod";
import { DEFAULTS } from "#core/base";
import { expectedFade, temperatureFactor, type CellCurve } from "#core/battery";
import { problemIf, readingKind } from "./kind.ts";
import { markShape } from "./mark.ts";
import { fractionRow, ROOT12, type Row, type Setting, type ReadingUnknown } from "./row.ts";

/** What a percent says: the fraction used, and the sd that rounding to its step leaves. 40 % step 5 on NMC: 0.6278, 0.0141. */
export function percentSays(percent: number, step: number, counts: Setting["counts"], curve: CellCurve) {
  const q = percent / 100;
  const rounding = step / 100 / ROOT12;
  if (counts === "energy") return { f: 1 - q, sd: rounding, slope: 1 };
  const slope = curve.voltsAt(q) / curve.phi(1);
  return { f: curve.fractionAt(q), sd: rounding * slope, slope };
}

/**
 * What all readings of one gauge have in common, in proportion to the fraction used: its scale, and what cold takes that it
 * does not know of. One that knows nothing of the cold counts against the warm pack, and more is used than it shows.
 */
function sharedErrors(f: number, setting: Setting): Row["unknowns"] {
  const { pack } = setting;
  const factor = temperatureFactor(pack.chemistry, pack.packTempC ?? DEFAULTS.packTempC);
  const lost = Math.max(0, 1 - factor / temperatureFactor(pack.chemistry, DEFAULTS.packTempC));
  // A gauge that counts learns of ageing late: it goes on counting against part of what the pack has lost.
  const fade = setting.counts === "volts" ? 0 : expectedFade(pack);
  const ownSd = setting.counts === "volts" ? DEFAULTS.gaugeVoltsScaleSd : DEFAULTS.gaugeScaleSd;
  const scale: ReadingUnknown = {
    ...{ key: "gauge scale", of: "gauge", source: "gauge scale" },
    mean: -DEFAULTS.gaugeKeepsFade * fade,
    sd: Math.hypot(ownSd, DEFAULTS.gaugeKeepsFadeSd * fade),
  };
  const cold: ReadingUnknown = {
    key: "gauge in the cold",
    of: "gauge",
    mean: DEFAULTS.gaugeKnowsCold - 1,
    sd: DEFAULTS.gaugeKnowsColdSd,
    source: "gauge in the cold",
  };
  return [
    ...(scale.sd > 0 ? [{ unknown: scale, coefficient: f }] : []),
    ...(lost > 0 && cold.sd > 0 ? [{ unknown: cold, coefficient: (f * lost) / (1 - lost) }] : []),
  ];
}

/** What a mistyped percent was likely meant for: the tens one off, or the digits swapped. */
function likelyMeant(percent: number): readonly number[] {
  const swapped = Number([...String(Math.round(percent)).padStart(2, "0")].reverse().join(""));
  return [...new Set([percent + 10, percent - 10, swapped])].filter(
    (each) => each >= 0 && each <= 100 && each !== percent,
  );
}

/** A percent gauge, counting charge or energy, rounded to its step, with a slow error of its own. */
export const percent = readingKind({
  schema: z.object({
    kind: z.literal("percent"),
    ...markShape,
    percent: z.number({ error: "Percent must be a number." }),
    /** Step of this reading, when it differs from the gauge's. */
    step: z.number().positive().optional(),
    /** How far the gauge wandered as it was read; the percent is its middle. */
    span: z.number().min(0).optional(),
  }),
  name: "percent",
  counted: ["one percent reading", "percent readings"],
  evidence: "percent",
  ifOff: "a typing slip?",
  text: ({ percent: value }) => `${value} %`,
  check: ({ percent: value }) =>
    problemIf(
      value < 0 || value > 100,
      "percent-range",
      "percent",
      `${value} % cannot be: type a percentage from 0 to 100.`,
    ),
  says: ({ mark, percent: value, step, span = 0 }, setting) => {
    const { percentStep, counts, curve } = setting;
    const { f, sd, slope } = percentSays(value, Math.max(span, step ?? percentStep), counts, curve);
    const look = counts === "volts" ? DEFAULTS.gaugeVoltsLookSd : DEFAULTS.gaugeLookSd;
    // Near the bottom a gauge may stand still while the charge goes on falling: never the other way.
    const q = value / 100;
    const below = q <= DEFAULTS.gaugeStandsBelow ? DEFAULTS.gaugeStandsSd * q * slope : 0;
    const row = fractionRow(
      mark,
      f + below,
      [
        { source: "gauge rounding", sd },
        { source: "gauge look", sd: look * slope },
        ...(below > 0 ? [{ source: "gauge at the bottom", sd: below } as const] : []),
      ],
      { process: "gauge", f },
    );
    const alternatives = likelyMeant(value).map((meant) => ({
      value: percentSays(meant, percentStep, counts, curve).f,
      text: `${meant} %`,
    }));
    return { ...row, unknowns: sharedErrors(f, setting), alternatives };
  },
});
