import { there, nth, parseNumber, unitToken, toSi } from "#core/base";

/** When a rider means to turn: at a place, or at what the gauge shows. SI units, percents. */
export type TurnRule =
  | { readonly by: "distance"; readonly atM: number }
  | { readonly by: "percent"; readonly at: number }
  | { readonly by: "bars"; readonly at: number }
  | { readonly by: "volts"; readonly at: number };

const FIGURE = /(?:at\s+)?(?:mile\s+)?(\d+(?:[.,]\d+)?)\s*(%|percent|miles?|mi|km|v|volts?|bars?)?/i;

/**
 * Reads a turn rule as riders say it: "half", "50 %", "mile 18", "18 mi", "37 V at rest", "2 bars".
 *
 * @returns null where it cannot be read
 * @example readTurnRule("50 %").at === 50
 * @example readTurnRule("37 V at rest").by === "volts"
 * @example readTurnRule("when tired") === null
 */
export function readTurnRule(text: string): TurnRule | null {
  const words = text.trim().toLowerCase();
  if (/^(at )?half\b/.test(words)) return { by: "percent", at: 50 };
  const found = FIGURE.exec(words);
  const value = found && parseNumber(nth(found, 1));
  if (!found || typeof value !== "number") return null;
  const unit = found[2] ?? (words.includes("mile") ? "mi" : "");
  if (unit.startsWith("mi")) return { by: "distance", atM: there(toSi(value, "distance", "mi")) };
  if (unit === "km") return { by: "distance", atM: there(toSi(value, "distance", "km")) };
  if (unit.startsWith("v")) return { by: "volts", at: value };
  if (unit.startsWith("bar")) return { by: "bars", at: value };
  return (unit === "%" || unit === "percent") && value <= 100 ? { by: "percent", at: value } : null;
}

/** What the log shows of a rule; null where nothing was noted. */
export interface TurnSeen {
  readonly distanceM: number | null;
  readonly percent: number | null;
  readonly bars: number | null;
  readonly restVolts: number | null;
}

export interface WatchedRule {
  readonly reached: boolean;
  readonly sentence: string;
}

/** The rule against the last readings, in words. */
export function watchTurnRule(rule: TurnRule, seen: TurnSeen): WatchedRule {
  if (rule.by === "distance") {
    const leftM = rule.atM - (seen.distanceM ?? 0);
    const place = unitToken(rule.atM, "distance", 1);
    return leftM <= 0
      ? { reached: true, sentence: `Your rule: turn at ${place}. You are there.` }
      : { reached: false, sentence: `Your rule: turn at ${place}, ${unitToken(leftM, "distance", 1)} from here.` }; // prettier-ignore
  }
  const [now, write] = {
    percent: [seen.percent, (value: number) => `${value} %`],
    bars: [seen.bars, (value: number) => (value === 1 ? "1 bar" : `${value} bars`)],
    volts: [seen.restVolts, (value: number) => `${value} V at rest`],
  }[rule.by] as [number | null, (value: number) => string];
  const at = write(rule.at);
  if (now === null)
    return { reached: false, sentence: `Your rule: turn at ${at}. Note it to have it watched.` };
  return now <= rule.at
    ? { reached: true, sentence: `Your rule: turn at ${at}. It shows ${write(now)}: turn now.` }
    : { reached: false, sentence: `Your rule: turn at ${at}. It shows ${write(now)}.` };
}
