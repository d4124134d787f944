import { formatInput, unitOf, type DimensionName, type System } from "#core/quantities";
import type { EntryBody } from "../entry.ts";
import type { LineSetting } from "./read.ts";

/** Digits kept of each quantity: read back, the entry is the same to these. */
const DIGITS = 4;

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
      break;
    default:
      return null;
  }
  quantity(body.distanceM, "distance");
  quantity(body.displayM, "distance", "trip ");
  if (body.kind !== "stop" && body.kind !== "go" && body.kind !== "note") {
    const { amps, ampsSpan } = body;
    const plain = (value: number) => String(Number(value.toFixed(digits)));
    if (body.percent !== undefined) parts.push(`${plain(body.percent)}%`);
    if (body.bars !== undefined) parts.push(`${body.bars}bars`);
    quantity(body.packVolts, "volts");
    if (body.underLoad !== undefined)
      parts.push(
        body.underLoad ? "load" : body.restMin === undefined ? "rest" : `rest ${plain(body.restMin)}min`,
      );
    if (amps !== undefined)
      parts.push(
        ampsSpan === undefined
          ? `${plain(amps)}A`
          : `${plain(amps - ampsSpan / 2)}-${plain(amps + ampsSpan / 2)}A`,
      );
    if (body.watts !== undefined) parts.push(`${plain(body.watts)}W`);
    quantity(body.counterWh, "energy");
    quantity(body.counterAh, "charge");
    quantity(body.speedMps, "speed");
    quantity(body.rangeGuessM, "distance", "~", " left");
    quantity(body.airTempC, "temperature");
    quantity(body.windMps, "speed", "wind ");
    quantity(body.climbM, "climb", "climb ");
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
  if (body.note !== undefined) parts.push(`"${body.note.replaceAll('"', "'")}"`);
  return parts.join(" ");
}
