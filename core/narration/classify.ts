import { nth } from "#core/base";
import type { Said } from "./context.ts";
import { REASONS } from "./kills.ts";
import { answerOf } from "./answers.ts";
import { left, type Asked, type Ride, type Verdict } from "./found.ts";
import { bareClimb, bareHeart, bareTemperature, BODY } from "./kinds/body.ts";
import { bareBars, BARS } from "./kinds/bars.ts";
import { barePercent, CHARGE } from "./kinds/charge.ts";
import { bareDistance, DISTANCE } from "./kinds/distance.ts";
import { bareLoad, ELECTRIC } from "./kinds/electric.ts";
import { bareVolts } from "./kinds/volts.ts";
import { levelFigure } from "./kinds/level.ts";
import { bareFact, SET_UP } from "./kinds/setUp.ts";
import { bareSpeed } from "./kinds/bareSpeed.ts";
import { SPEED } from "./kinds/speed.ts";
import { clockTime, TIME } from "./kinds/time.ts";
import type { Quantity } from "./quantities.ts";

const BY_UNIT = { ...DISTANCE, ...CHARGE, ...BARS, ...ELECTRIC, ...SPEED, ...TIME, ...BODY, ...SET_UP };

/** In a sweep, said in pairs: "Four, 14.8, 6 amps" is level, speed and current. */
function inPairs({ quantity, around, ride }: Asked, said: Said): Verdict | null {
  if (ride.pairs < 2 || quantity.unit !== null || quantity.clock) return null;
  const { clause, before } = around;
  const starts = before.trim() === "";
  const token = said.tokens[quantity.to - 1];
  if (starts && !quantity.exact && quantity.value >= 0 && quantity.value <= 9 && token && token.pause !== "")
    return { kind: "level", value: quantity.value, unit: null, because: "the level, as in the pairs before" };
  if (!/^(?:(?:it's|that's|and|gives|me|i get|,) ?)*$/.test(clause)) return null;
  const here = ride.recent.filter(({ at }) => at >= quantity.from - 14).map(({ kind }) => kind);
  const unit = ride.unit === "km" ? "km/h" : "mph";
  const sentenceHas = (mark: string) => around.sentence.includes(mark);
  const levelHere = here.lastIndexOf("level");
  if (levelHere < 0) return null;
  const since = here.slice(levelHere);
  if (!since.includes("speed") && !sentenceHas("#_mph") && !sentenceHas("#_km/h") && quantity.value > 6)
    return { kind: "speed", value: quantity.value, unit, because: "a speed, as in the pairs before" };
  if (!since.includes("amps") && !sentenceHas("#_A"))
    return { kind: "amps", value: quantity.value, unit: "A", because: "a current, as in the pairs before" };
  return null;
}

/** What a figure is, by its unit, or by what is around it where it has none; null where nothing speaks of it. */
export function classify(said: Said, quantity: Quantity, ride: Ride): Verdict | null {
  const asked: Asked = { quantity, around: said.around(quantity.from, quantity.to), ride };
  if (quantity.unit === null) {
    const signed =
      /^(minus|negative|plus)$/.test(nth(said.tokens, quantity.from).word) ||
      said.tokens[quantity.from - 1]?.word === "plus";
    return (
      answerOf(asked) ??
      levelFigure(asked) ??
      inPairs(asked, said) ??
      clockTime(asked) ??
      (signed ? bareTemperature(asked, true) : null) ??
      bareHeart(asked) ??
      bareSpeed(asked) ??
      bareVolts(asked) ??
      bareLoad(asked) ??
      bareFact(asked) ??
      bareBars(asked) ??
      bareClimb(asked) ??
      bareDistance(asked) ??
      barePercent(asked) ??
      bareTemperature(asked, signed)
    );
  }
  const rule = BY_UNIT[quantity.unit];
  return rule ? (rule(asked) ?? left(REASONS.unlicensed)) : left(REASONS.unlicensed);
}
