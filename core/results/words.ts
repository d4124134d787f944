import type { Reading } from "#core/readings";
import { fixed, formatQuantity, METRES_PER_MILE, type System } from "#core/quantities";

/** A reading in a few words, as in a sentence: "62 %", "48.6 V at rest", "bar 4 lost". */
export function readingText(reading: Reading): string {
  switch (reading.kind) {
    case "fullStart":
      return "charger done";
    case "percent":
      return `${reading.percent} %`;
    case "restVolts":
      return `${reading.packVolts} V at rest`;
    case "loadedVolts":
      return `${reading.packVolts} V at ${reading.amps} A`;
    case "bars":
      return `${reading.bars} bars`;
    case "barLost":
      return `bar ${reading.bar} lost`;
    case "lastBarBlinking":
      return "last bar blinking";
    case "lowPower":
      return "low-power mode";
    case "cutOff":
      return "cut-off";
    case "energyCounter":
    case "telemetry":
      return `${reading.wh} Wh counted`;
    case "chargeCounter":
      return `${reading.ah} Ah counted`;
    case "wallRefill":
      return `${reading.wallWh} Wh at the wall`;
  }
}

/** "a, b and c". */
export function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;
}

const PLURAL: Readonly<Record<Reading["kind"], readonly [one: string, many: string]>> = {
  fullStart: ["a full start", "full starts"],
  percent: ["one percent", "percents"],
  restVolts: ["one rest volts", "rest volts"],
  loadedVolts: ["one loaded volts", "loaded volts"],
  bars: ["one look at the bars", "looks at the bars"],
  barLost: ["one bar lost", "bars lost"],
  lastBarBlinking: ["the last bar blinking", "last bars blinking"],
  lowPower: ["low-power mode", "low-power modes"],
  cutOff: ["the cut-off", "cut-offs"],
  energyCounter: ["one energy count", "energy counts"],
  chargeCounter: ["one charge count", "charge counts"],
  telemetry: ["telemetry", "runs of telemetry"],
  wallRefill: ["one refill", "refills"],
};

/** What a figure rests on: "from 12 percents, 2 rest volts, a full start and the cut-off". */
export function evidenceWords(readings: readonly Reading[]): string {
  const counts = new Map<Reading["kind"], number>();
  for (const { kind } of readings) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  const words = [...counts]
    .sort((a, b) => b[1] - a[1])
    .map(([kind, count]) => (count === 1 ? PLURAL[kind][0] : `${count} ${PLURAL[kind][1]}`));
  return words.length ? `from ${listed(words)}` : "no reading yet: this is only what is assumed of any bike";
}

/** "62 % at 9.4 mi is 4.1 sd above what the other readings allow: a typing slip?" Standing is of the fraction used, so a positive one means too low a charge. */
export function flagSentence(
  reading: Reading,
  distanceM: number,
  standing: number,
  system: System = "imperial",
): string {
  const side = standing > 0 ? "below" : "above";
  const cause =
    reading.kind === "percent"
      ? "a typing slip?"
      : reading.kind === "restVolts"
        ? "was the load off?"
        : "seen late, or noted at the wrong mile?";
  const place = formatQuantity(distanceM, "distance", system);
  return `${readingText(reading)} at ${place} stands ${fixed(Math.abs(standing), 1)} sd ${side} what the other readings allow: ${cause}`;
}

/** Why plain and best part, from the numbers. Wh per metre. */
export function differenceSentence(
  plainWhPerM: number,
  bestWhPerM: number,
  bestSd: number,
  labelWh: number,
  capacityWh: number,
): string {
  const gap = (plainWhPerM - bestWhPerM) * METRES_PER_MILE;
  const label = labelWh / capacityWh - 1;
  const doubt = 1.96 * bestSd * METRES_PER_MILE;
  if (Math.abs(gap) < 0.25 * doubt) return "Plain and best agree within a quarter of the plus-or-minus.";
  const side = gap > 0 ? "more" : "less";
  if (
    gap > 0 &&
    label > 0.02 &&
    Math.abs(bestWhPerM * (1 + label) - plainWhPerM) < Math.abs(plainWhPerM - bestWhPerM)
  )
    return `Plain is ${fixed(Math.abs(gap), 1)} Wh/mi ${side} because it trusts the label's ${fixed(labelWh, 0)} Wh; best puts usable energy at ${fixed(capacityWh, 0)} Wh.`;
  return `Plain is ${fixed(Math.abs(gap), 1)} Wh/mi ${side} because it rests on the first and last reading alone; best weighs every reading by its error.`;
}

const SOURCE_WORDS: Readonly<Record<string, string>> = {
  capacity: "what the pack holds",
  "gauge smooth": "gauge not linear",
  "gauge rounding": "rounding of the gauge",
  "volts curve": "this pack's own volts curve",
  "volts reading": "reading the volts",
  "full at start": "how full it was at the start",
  "road scatter": "the road: stops, turns, wind",
  "bar thresholds": "where each bar really goes",
  "bar sighting": "seeing the bar go late",
  "bar width": "width of a bar",
  "cut-off": "where the pack cuts off",
  "low-power point": "where low-power mode begins",
  "low-power sighting": "seeing low-power mode begin",
  "last-bar point": "where the last bar blinks",
  climb: "energy per metre climbed",
  "meter gain": "the meter's gain",
  "logger gain": "the logger's gain",
  "charger efficiency": "the charger's efficiency",
  "counter step": "the counter's last digit",
  "telemetry gaps": "gaps in the telemetry",
};

/** An error source in plain words. Example: `sourceWords("gauge smooth") === "gauge not linear"`. */
export function sourceWords(source: string): string {
  return SOURCE_WORDS[source] ?? source;
}
