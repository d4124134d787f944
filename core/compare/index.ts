export {
  differenceTraced,
  mapTraced,
  pooledTraced,
  sourceOf,
  sumTraced,
  untraced,
  type Traced,
} from "./traced.ts";
export { deskDayOf, type Compared, type PartOf, type RiddenTest } from "./compared.ts";
export { asRidden } from "./figure.ts";
export {
  chanceLess,
  standings,
  type Bracket,
  type Standing,
  type StandingInput,
  type Swapped,
} from "./standings.ts";
export {
  inMeasure,
  onPack,
  MEASURE,
  MEASURES,
  unitOfMeasure,
  type MeasureBasis,
  type MeasureName,
} from "./measure.ts";
export { confounders } from "./confounders.ts";
export { spot, type Spot, type SpotPack, type SpotRow } from "./spot.ts";
export { pairedDifference, type PairedDifference, type Run } from "./paired.ts";
export { climbOf, type Climb, type ClimbRun } from "./climb.ts";
export {
  broughtTo,
  capacityUnder,
  subjectOf,
  underReference,
  type UnderReference,
} from "./underReference.ts";
export { bridgeTo, type Bridge, type BridgeBar } from "./bridge.ts";
export { drawableOf, drawerUnder, spreadOf, type Drawable } from "./draws.ts";
export { jointPair, type JointPair, type SidesOf } from "./joint.ts";
export type { SideNotes } from "./sideNotes.ts";
export { orderWarning } from "./order.ts";
export { neededFor, type Needed } from "./needed.ts";
export type { PairedTest } from "./runs.ts";
export {
  drivenBy,
  sweepResults,
  sweepRows,
  sweepSpots,
  type SweepCurve,
  type SweepResults,
  type SweepSpot,
} from "./sweep.ts";
export { CLIMB_PACK_WH, climbFigures, climbRow, type ClimbFigures } from "./climbs.ts";
export { inAir, seasonRange, SEASONS, type Season, type SeasonRange } from "./seasons.ts";
export {
  claimReport,
  rangeSpan,
  type ClaimEnd,
  type ClaimInput,
  type ClaimLine,
  type ClaimReport,
  type RangeSpan,
  type RangeUnder,
} from "./claims.ts";
export { statedConditions } from "./stated.ts";
export { whatWouldSettle, type Settling } from "./settle.ts";
export { tellableOf, type Tellable } from "./tellable.ts";
export { neighbourOf, type Neighbour } from "./neighbour.ts";
export {
  boardOf,
  figureFor,
  type FigureAsk,
  type FigureOnBoard,
  LEVEL_PLACES,
  partFor,
  type Board,
  type BoardAsk,
  type BoardEntry,
  type BoardRow,
} from "./board.ts";
export { cheapestOption, optionRange, packOptions, type PackOption } from "./options.ts";
export { bikeCells, cellUnder, type BikeCell } from "./cells.ts";
export { withoutOne, type WithoutOne } from "./leaveOut.ts";
export { steadyRows } from "./steadyRows.ts";
export { comparedOf, type Reckoned } from "./ofRecords.ts";
export { rankUnder, type Ranked, type RankingUnder } from "./ranking.ts";
export { leftOver, worthOf, type Worth } from "./worth.ts";
