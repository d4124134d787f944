import type { Reading } from "#core/readings";
import type { LoggedReading } from "./course.ts";
import type { ReadingField } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";

/** The readings an entry holds, at a mark. */
export function readingsAt(mark: number, entry: LiveEntry, meterStepV: number): LoggedReading[] {
  const { body } = entry;
  const found: LoggedReading[] = [];
  const say = (reading: Reading, field: ReadingField | null) =>
    found.push({
      reading,
      rootId: entry.rootId,
      field,
      struck: entry.struck || (field !== null && entry.struckFields.includes(field)),
    });
  if (body.kind === "start" && body.chargerDone) say({ kind: "fullStart", mark }, null);
  if (body.kind === "barLost") say({ kind: "barLost", mark, bar: body.bar }, null);
  if (body.kind === "lastBar") say({ kind: "lastBarBlinking", mark }, null);
  if (body.kind === "lowPower") say({ kind: "lowPower", mark }, null);
  if (body.kind === "end" && body.reason === "cutOff") say({ kind: "cutOff", mark }, null);
  if ("percent" in body && body.percent !== undefined)
    say({ kind: "percent", mark, percent: body.percent }, "percent");
  if ("bars" in body && body.bars !== undefined) say({ kind: "bars", mark, bars: body.bars }, "bars");
  if ("packVolts" in body && body.packVolts !== undefined) {
    const { packVolts, amps, underLoad, restMin } = body;
    if (!underLoad)
      say({ kind: "restVolts", mark, packVolts, restMin: restMin ?? 0, meterStepV }, "packVolts");
    else if (amps !== undefined) say({ kind: "loadedVolts", mark, packVolts, amps, meterStepV }, "packVolts");
  }
  return found;
}
