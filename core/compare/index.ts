export { differenceOf, weightedMean, weightedSum, combine, type ErrorComponents } from "./errorComponents.ts";
export { deskDayOf, type Compared, type RiddenTest } from "./compared.ts";
export { asRidden } from "./figure.ts";
export {
  chanceLess,
  HARDLY_KNOWN,
  isHardlyKnown,
  standings,
  type PossiblePlaces,
  type Standing,
  type StandingInput,
  type Swapped,
} from "./ranking/standings.ts";
export {
  inMeasure,
  onPack,
  MEASURE,
  MEASURES,
  unitOfMeasure,
  type MeasureBasis,
  type MeasureName,
} from "./ranking/measure.ts";
export { lessShort, lessText } from "./pairs/less.ts";
export { whyUnder, type Why } from "./pairs/why.ts";
export { confounders } from "./pairs/confounders.ts";
export { spot } from "./trials/spot.ts";
export { pairedDifference } from "./pairs/paired.ts";
export { climbOf } from "./trials/climb.ts";
export {
  broughtTo,
  capacityUnder,
  subjectOf,
  normaliseTo,
  type Normalised,
} from "./normalise/normaliseTo.ts";
export { bridgeTo, type Bridge } from "./normalise/bridge.ts";
export { drawableOf, drawerUnder, spreadOf, type Drawable } from "./normalise/draws.ts";
export { jointPair, type JointPair, type SidesOf } from "./pairs/joint.ts";
export type { SideNotes } from "./pairs/sideNotes.ts";
export { orderWarning } from "./pairs/order.ts";
export { neededFor } from "./pairs/needed.ts";
export type { PairedTest } from "./pairs/runs.ts";
export {
  drivenBy,
  sweepResults,
  sweepRows,
  sweepSpots,
  type SweepCurve,
  type SweepResults,
  type SweepSpot,
} from "./trials/sweep.ts";
export { CLIMB_PACK_WH, climbFigures, climbRow, type ClimbFigures } from "./trials/climbs.ts";
export { inAir, seasonRange, SEASONS } from "./normalise/seasons.ts";
export {
  claimLine,
  claimReport,
  isClaimFor,
  verdictText,
  type ClaimInput,
  type ClaimReport,
  type RangeUnder,
} from "./claims/claims.ts";
export { statedConditions } from "./normalise/stated.ts";
export { whatWouldSettle, type Settling } from "./settle.ts";
export { tellableOf } from "./tellable.ts";
export { neighbourOf } from "./ranking/neighbour.ts";
export {
  boardOf,
  figureFor,
  type FigureAsk,
  type FigureOnBoard,
  LEVEL_PLACES,
  partFor,
  type BoardAsk,
  type BoardEntry,
} from "./ranking/board.ts";
export { cheapestOption, optionRange, packOptions, type PackOption } from "./ranking/options.ts";
export { bikeCells, cellUnder, type BikeCell } from "./normalise/cells.ts";
export { withoutOne, type WithoutOne } from "./pairs/leaveOut.ts";
export { steadyRows } from "./trials/steadyRows.ts";
export { comparedOf, type Reckoned } from "./ofRecords.ts";
export { rankUnder } from "./ranking/ranking.ts";
export { leftOver, worthOf, type Worth } from "./pairs/worth.ts";
