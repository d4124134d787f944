import type { TurnRound } from "#core/forecast";
import { temperatureFactor } from "#core/battery";
import { fixed, unitToken, Z_95, type Estimate } from "#core/base";
import type { PlannedRoute, PlanRecord } from "./record.ts";

/** Sentences of a plan; quantities stand in them as tokens. */
/**
 * "12.4 mi", for a sentence.
 *
 * @example placeText(1609.344) === "‹1609.344 distance 1›"
 */
export const placeText = (atM: number) => unitToken(atM, "distance", 1);
/**
 * "20 %".
 *
 * @example percent(0.2) === "20 %"
 */
export const percent = (share: number) => `${fixed(100 * share, 0)} %`;
export const energyToken = (wh: number) => unitToken(wh, "energy", 0);
/** "712 Wh ± 269 Wh", for a sentence. */
export const plusMinus = ({ mean, sd }: Estimate) => `${energyToken(mean)} ± ${energyToken(Z_95 * sd)}`;

/** Air in which a pack is too warm to be charged at once. */
const HOT_C = 35;

/** Where to turn round, as a rule to ride by. */
export function turnRule({ forecast, endM }: PlannedRoute, turn: TurnRound, emptied: boolean): string {
  const { way } = forecast.along;
  const reserve = percent(forecast.input.reserve);
  if (emptied)
    return way.closed
      ? `Ride laps until the end counts; home is never further than ${placeText(way.lapM / 2)} away.`
      : "Ride on until the end counts; be fetched from there.";
  if (!way.closed)
    return turn.latestM === null
      ? `All the way: even back to the start ${reserve} would be left.`
      : `Up to ${placeText(turn.latestM)} the pack still brings you back with ${reserve}; beyond it only the lift home does.`;
  if (turn.latestM === null || turn.latestM >= endM)
    return `All of it: home with ${reserve} left is sure from everywhere on the way.`;
  if (way.turnM === null || way.laps > 1)
    return turn.lapsSure === 0
      ? `Go back the way you came by ${placeText(turn.latestM)}: a whole lap is not sure with ${reserve} left.`
      : `Begin no lap after lap ${turn.lapsSure}: the next one is not sure to end at home with ${reserve} left.`;
  return `Turn round by ${placeText(turn.latestM)}, wherever you are: home with ${reserve} left is sure from there, and not beyond.`;
}

/** What the day's cold or heat does. */
export function weatherLines(record: PlanRecord, route: PlannedRoute, whPerM: number): readonly string[] {
  const { plan, pack } = record;
  const tempC = plan.packTempC ?? plan.airTempC;
  if (tempC === undefined)
    return ["No temperature typed: the pack is taken as at room warmth. Cold packs yield less."];
  const factor = temperatureFactor(pack.chemistry, tempC);
  const lines: string[] = [];
  if (factor < 0.985) {
    const warmWh = route.forecast.capacity.mean / factor;
    const lostWh = warmWh - route.forecast.capacity.mean;
    lines.push(
      `At ${unitToken(tempC, "temperature")} the pack yields ${percent(factor)} of what it does warm: ${energyToken(lostWh)} less, about ${placeText(lostWh / whPerM)}. Keep it indoors until you start.`,
    );
  }
  if (tempC <= 0) lines.push("Do not charge it below freezing: let it come to the room first.");
  if (tempC >= HOT_C) lines.push("Heat: water, shade, and let the pack cool before it is charged.");
  return lines;
}
