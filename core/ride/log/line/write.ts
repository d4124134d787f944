import { formatInput, unitOf, type DimensionName, type System } from "#core/base";
import type { End, EntryBody } from "../entry.ts";
import type { LineSetting } from "./reader.ts";

/** Digits kept of each quantity: read back, the entry is the same to these. */
const DIGITS = 4;

/** Ends the line has words for. */
const END_LINES: Readonly<Partial<Record<End, string>>> = {
  cutOff: "cut off",
  cannotHoldSpeed: "cannot hold speed",
  gaugeZero: "gauge zero",
  byChoice: "end",
};

/** Hours, minutes and seconds, as the line reads a riding time. */
function clockOf(seconds: number): string {
  const whole = Math.round(seconds);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${Math.floor(whole / 3600)}:${two(Math.floor(whole / 60) % 60)}:${two(whole % 60)}`;
}

/**
 * Writes an entry as the shorthand line that reads back as it. Null for kinds the line has no words for.
 *
 * @param digits kept of each quantity; fewer are for the eye only
 */
export function writeLine(
  body: EntryBody,
  setting: LineSetting,
  system: System,
  digits = DIGITS,
): string | null {
  const parts: string[] = [];
  const quantity = (value: number | undefined, name: DimensionName, lead = "", after = "") => {
    if (value === undefined) return;
    parts.push(`${lead}${formatInput(value, name, unitOf(name, system), digits).replace(" ", "")}${after}`);
  };
  switch (body.kind) {
    case "checkIn":
      break;
    case "start":
      parts.push(body.chargerDone ? "full" : "start");
      break;
    case "barLost":
      parts.push(`lost ${body.bar}`);
      break;
    case "lastBar":
      parts.push("blink");
      break;
    case "lowPower":
      parts.push("lowpower");
      break;
    case "stop":
    case "go":
      parts.push(body.kind);
      break;
    case "note":
    case "totals":
      break;
    case "end": {
      const words = END_LINES[body.reason];
      if (words === undefined) return null;
      parts.push(words);
      break;
    }
    default:
      return null;
  }
  const plain = (value: number) => String(Number(value.toFixed(digits)));
  const spanned = (value: number | undefined, span: number | undefined, unit: string) => {
    if (value === undefined) return;
    parts.push(
      span === undefined
        ? `${plain(value)}${unit}`
        : `${plain(value - span / 2)}-${plain(value + span / 2)}${unit}`,
    );
  };
  if (body.kind !== "totals") {
    quantity(body.distanceM, "distance");
    quantity(body.displayM, "distance", "trip ");
  }
  if (body.kind !== "totals" && body.kind !== "note") {
    spanned(body.percent, body.percentSpan, "%");
    if (body.bars !== undefined) parts.push(`${body.bars}bars`);
    quantity(body.packVolts, "volts");
    if (body.underLoad !== undefined)
      parts.push(
        body.underLoad ? "load" : body.restMin === undefined ? "rest" : `rest ${plain(body.restMin)}min`,
      );
    spanned(body.amps, body.ampsSpan, "A");
    if (body.watts !== undefined) parts.push(`${plain(body.watts)}W`);
    quantity(body.counterWh, "energy");
    quantity(body.counterAh, "charge");
    quantity(body.speedMps, "speed");
    quantity(body.rangeGuessM, "distance", "~", " left");
    quantity(body.airTempC, "temperature");
    quantity(body.windMps, "speed", "wind ");
    if (body.bpm !== undefined) parts.push(`${plain(body.bpm)}bpm`);
    if (body.level !== undefined) {
      const place = setting.levels.indexOf(body.level);
      const numbered = /^\d+$/.test(body.level) ? `L${body.level}` : `L${place + 1}`;
      parts.push(body.level === "throttle" ? "throttle" : place < 0 ? `"level ${body.level}"` : numbered);
    }
    if (body.section !== undefined || body.side !== undefined)
      parts.push(`@${(body.section ?? "").replaceAll(" ", "-")}${body.side ? `:${body.side}` : ""}`);
    if (body.ground !== undefined) parts.push(`#${body.ground.replace(" ", "-")}`);
  }
  if (body.kind !== "note") {
    quantity(body.climbM, "climb", "climb ");
    if (body.movingS !== undefined) parts.push(`moving ${clockOf(body.movingS)}`);
    quantity(body.avgSpeedMps, "speed", "avg ");
    quantity(body.topSpeedMps, "speed", "top ");
    if (body.avgBpm !== undefined) parts.push(`avg ${plain(body.avgBpm)}bpm`);
  }
  if (body.note !== undefined) parts.push(`"${body.note.replaceAll('"', "'")}"`);
  return parts.join(" ");
}
