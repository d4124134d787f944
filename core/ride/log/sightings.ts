import type { Reading } from "#core/battery/readings";
import type { LoggedReading } from "./timeline.ts";
import type { End } from "#core/fields";
import type { ReadingField } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";

/** What an end says of the charge; a low-power mode that is held, and a stop by choice, say nothing more than the gauge. */
const END_SAYS: Readonly<Record<End, "cutOff" | "crawl" | "gaugeZero" | null>> = {
  cutOff: "cutOff",
  cannotHoldSpeed: "crawl",
  gaugeZero: "gaugeZero",
  lowPower: null,
  byChoice: null,
};

/**
 * The readings an entry holds, at a mark.
 *
 * @param placeSdM doubt of the mark's place, for an entry noted without a distance
 */
export function readingsAt(
  mark: number,
  entry: LiveEntry,
  meterStepV: number,
  placeSdM?: number,
): LoggedReading[] {
  const { body } = entry;
  const found: LoggedReading[] = [];
  const place = placeSdM ? { placeSdM } : {};
  const say = (reading: Reading, field: ReadingField | null) =>
    found.push({
      reading,
      rootId: entry.rootId,
      field,
      struck: entry.struck || (field !== null && entry.struckFields.includes(field)),
    });
  if (body.kind === "start" && body.chargerDone) say({ kind: "fullStart", mark }, null);
  if (body.kind === "barLost") say({ kind: "barLost", mark, ...place, bar: body.bar }, null);
  if (body.kind === "lastBar") say({ kind: "lastBarBlinking", mark, ...place }, null);
  if (body.kind === "lowPower") say({ kind: "lowPower", mark, ...place }, null);
  if (body.kind === "end") {
    const said = END_SAYS[body.reason];
    if (said) say({ kind: said, mark }, null);
  }
  if ("percent" in body && body.percent !== undefined)
    say(
      {
        kind: "percent",
        mark,
        ...place,
        percent: body.percent,
        ...(body.percentSpan !== undefined && { span: body.percentSpan }),
      },
      "percent",
    );
  if ("bars" in body && body.bars !== undefined)
    say(
      { kind: "bars", mark, ...place, bars: body.bars, ...(body.barsSpan && { fewer: body.barsSpan }) },
      "bars",
    );
  if ("packVolts" in body && body.packVolts !== undefined) {
    const { packVolts, amps, underLoad, restMin } = body;
    if (!underLoad)
      say({ kind: "restVolts", mark, ...place, packVolts, restMin: restMin ?? 0, meterStepV }, "packVolts");
    else if (amps !== undefined)
      say({ kind: "loadedVolts", mark, ...place, packVolts, amps, meterStepV }, "packVolts");
  }
  return found;
}
