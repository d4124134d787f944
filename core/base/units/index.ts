export {
  aMile,
  decimalsOf,
  DIMENSIONS,
  fromSi,
  KG_PER_LB,
  METRES_PER_MILE,
  MPS_PER_MPH,
  PA_PER_PSI,
  STANDARD_GRAVITY,
  toSi,
  unitNamed,
  spellingsOf,
  unitOf,
  type DimensionName,
  type System,
} from "./units.ts";
export { durationAt, durationText, stopwatchAt, stopwatchText } from "./duration.ts";
export { certaintyOf, chanceBelow, LIKELY, oddsText, type Certainty } from "./certainty.ts";
export { chanceAbove, spanOf } from "./bounded.ts";
export { couldBeThousands, parseNumber, parseQuantity, twoWays } from "./parse.ts";
export { halfWidth95, scale, Z_95, Z_ONE_SIDED_95, widen, withRelative, type Estimate } from "./estimate.ts";
export {
  errorDecimals,
  fixed,
  formatBare,
  formatInput,
  formatQuantity,
  formatUncertain,
  spanText,
  writeIn,
  writeNarrowing,
  writeShare,
  writeUncertain,
} from "./format.ts";
export { decimalBy, forField, withReadersDecimals, type Decimal } from "./decimal.ts";
export { normalCdf } from "./normal.ts";
export { estimateToken, unitToken, renderUnits } from "./renderUnits.ts";
