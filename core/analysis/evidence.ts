import { nth, lastOf, DEFAULTS, fixed, unitToken, withRelative, type Estimate } from "#core/base";
import {
  singleSourceEstimates,
  type SingleSourceEstimate,
  type LedgerInput,
  type Solved,
} from "#core/estimation";
import type { LoggedReading } from "#core/ride/log";
import { curveOf, straightLineCharge, type Pack } from "#core/battery";
import type { EvidenceAlone } from "./types.ts";
import { countedWords } from "./words.ts";

const NAMES: Readonly<Record<SingleSourceEstimate["evidence"], string>> = {
  percent: "percent",
  volts: "volts, by the cell curve",
  bars: "bars",
  counter: "counter",
  telemetry: "telemetry",
  refill: "refill at the wall",
  runDown: "full to the end",
};

interface StraightLine {
  readonly whPerM: Estimate;
  readonly volts: number;
  readonly byLine: number;
  readonly byCurve: number;
}

/** The straight-line school on the first and the last rest volts; null without two at different miles. */
function straightLine(solved: Solved, pack: Pack, readings: readonly LoggedReading[]): StraightLine | null {
  const cells = pack.seriesCells;
  if (cells === undefined) return null;
  const volts = readings.flatMap(({ reading }) => (reading.kind === "restVolts" ? [reading] : []));
  const [first, last] = [volts[0], volts.at(-1)];
  if (!first || !last || last.mark <= first.mark) return null;
  const { legs } = nth(solved.input.rides, 0);
  const between = legs.slice(first.mark, last.mark);
  if (between.some(({ charged }) => charged)) return null;
  const metres = between.reduce((sum, leg) => sum + Object.values(leg.metres).reduce((a, b) => a + b, 0), 0);
  const curve = curveOf(pack);
  const [empty, full] = [curve.voltsAt(0) * cells, curve.voltsAt(1) * cells];
  const line = (packVolts: number) => straightLineCharge(packVolts, empty, full);
  const drop = line(first.packVolts) - line(last.packVolts);
  const usable = nth(Object.values(solved.columns.usable), 0);
  if (!(drop > 0) || !(metres > 0)) return null;
  const perVolt = 1 / (full - empty);
  const voltsSd = DEFAULTS.unrestedVoltsSd * cells * Math.SQRT2;
  const mean = (drop * usable.mean) / metres;
  return {
    whPerM: { mean, sd: mean * Math.hypot((voltsSd * perVolt) / drop, usable.sd / usable.mean) },
    volts: last.packVolts,
    byLine: line(last.packVolts),
    byCurve: curve.chargeAt(last.packVolts / cells),
  };
}

const whPer = (whPerM: number) => unitToken(whPerM, "energyPerDistance", 1);

/** Why the kinds differ, from the numbers: the pair that differs most, and the straight line if it stands apart. */
function sentenceOf(alone: readonly EvidenceAlone[], line: StraightLine | null): string | null {
  const kinds = alone.filter(({ kind }) => kind !== "straightLine");
  const parts: string[] = [];
  if (kinds.length > 1) {
    const sorted = [...kinds].sort((a, b) => a.whPerM.mean - b.whPerM.mean);
    const [low, high] = [nth(sorted, 0), lastOf(sorted)];
    const gap = high.whPerM.mean - low.whPerM.mean;
    const sds = gap / Math.hypot(low.whPerM.sd, high.whPerM.sd);
    const verdict =
      sds < 2
        ? "within what their own errors allow"
        : "more than their own errors allow, so one of them has a slip or a fault of its own";
    parts.push(
      `${capital(high.name)} alone says ${whPer(high.whPerM.mean)}, ${low.name} alone ${whPer(low.whPerM.mean)}: ${fixed(sds, 1)} sd apart, ${verdict}.`,
    );
  }
  const curve = alone.find(({ kind }) => kind === "volts");
  if (line && curve)
    parts.push(
      `At ${fixed(line.volts, 1)} V a straight line leaves ${fixed(line.byLine * 100, 0)} % of the charge, the cell curve ${fixed(line.byCurve * 100, 0)} %: that is why the line reads ${whPer(line.whPerM.mean)} where the curve reads ${whPer(curve.whPerM.mean)}.`,
    );
  return parts.length ? parts.join(" ") : null;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** What each kind of evidence alone would say, and why they differ. */
export function evidenceAlone(
  solved: Solved,
  input: LedgerInput,
  readings: readonly LoggedReading[],
  distanceRelativeSd: number,
): { readonly alone: readonly EvidenceAlone[]; readonly sentence: string | null } {
  const withDistance = (value: Estimate) => withRelative(value, distanceRelativeSd);
  const alone: EvidenceAlone[] = singleSourceEstimates(input).map(({ evidence, readings: own, whPerM }) => ({
    kind: evidence,
    name: NAMES[evidence],
    from: evidence === "runDown" ? "the end, from a full start" : countedWords(own),
    whPerM: withDistance(whPerM),
  }));
  const line = straightLine(solved, nth(Object.values(input.packs), 0), readings);
  if (line) {
    const at = alone.findIndex(({ kind }) => kind === "volts");
    alone.splice(at + 1, 0, {
      kind: "straightLine",
      name: "volts, by a straight line",
      from: "the first and last volts at rest",
      whPerM: withDistance(line.whPerM),
    });
  }
  return { alone, sentence: sentenceOf(alone, line) };
}
