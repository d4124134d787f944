import { nth } from "../nth.ts";
const HOURS =
  /(\d{1,3})\s?h(?:ours?|rs?|r)?(?:\s?(\d{1,2})\s?(?:m(?:in(?:ute)?s?)?)?(?![\p{L}\d]))?(?![\p{L}\d])/iuy;
const CLOCK = /(\d{1,3}):([0-5]\d)(?::([0-5]\d))?(?![\d:])/y;
const MINUTES = /(\d{1,4}(?:[.,]\d+)?)\s?(?:min(?:ute)?s?|m)(?![\p{L}\d])/iuy;

const matchAt = (pattern: RegExp, text: string, at: number) => {
  pattern.lastIndex = at;
  return pattern.exec(text);
};

/**
 * Finds a time span as people write it: "3:24" and "3:24:10" are hours and minutes, "2 h 47 min", "1h08", "167 min".
 *
 * @param at where in the text it begins
 * @returns seconds and where it ends; null when there is none
 * @example durationAt("2 h 47 min").seconds === 10020
 */
export function durationAt(text: string, at = 0): { readonly seconds: number; readonly to: number } | null {
  const clock = matchAt(CLOCK, text, at);
  if (clock) {
    const [, h, m, s = "0"] = clock;
    return { seconds: 3600 * Number(h) + 60 * Number(m) + Number(s), to: at + clock[0].length };
  }
  const hours = matchAt(HOURS, text, at);
  if (hours) {
    const [, h, m = "0"] = hours;
    return { seconds: 3600 * Number(h) + 60 * Number(m), to: at + hours[0].length };
  }
  const minutes = matchAt(MINUTES, text, at);
  return minutes && { seconds: 60 * Number(nth(minutes, 1).replace(",", ".")), to: at + minutes[0].length };
}

/**
 * A time span as it is read aloud: "2 h 47 min", "47 min".
 *
 * @example durationText(10_020) === "2 h 47 min"
 */
export function durationText(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  const [h, m] = [Math.floor(minutes / 60), minutes % 60];
  if (h === 0) return `${m} min`;
  return m === 0 ? `${h} h` : `${h} h ${m} min`;
}

/**
 * Minutes and seconds as a stopwatch shows them: "3:24"; over an hour "1:03:24".
 *
 * @example stopwatchText(204) === "3:24"
 */
export function stopwatchText(seconds: number): string {
  const whole = Math.round(seconds);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (value: number) => String(value).padStart(2, "0");
  return h ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
}

const STOPWATCH = /^\s*(?:(\d{1,2}):)?(\d{1,3}):([0-5]\d)\s*$/;

/**
 * Reads a stopwatch, "3:24" being minutes and seconds; seconds, or null where it shows something else.
 *
 * @example stopwatchAt("1:03:24") === 3804
 * @example stopwatchAt("soon") === null
 */
export function stopwatchAt(text: string): number | null {
  const found = STOPWATCH.exec(text);
  return found && 3600 * Number(found[1] ?? 0) + 60 * Number(found[2]) + Number(found[3]);
}
