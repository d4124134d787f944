export {
  differenceTraced,
  mapTraced,
  pooledTraced,
  sourceOf,
  sumTraced,
  tracedShares,
  untraced,
  type Traced,
} from "./traced.ts";
export type { Compared, FittedBike, PartOf } from "./compared.ts";
export { asRidden } from "./figure.ts";
export { chanceLess, standings, type Standing, type StandingInput, type Swapped } from "./standings.ts";
export {
  inMeasure,
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
export { onceWeighed, underReference, type UnderReference } from "./underReference.ts";
export { bridgeTo, type Bridge, type BridgeBar } from "./bridge.ts";
export { drawerUnder, spreadOf } from "./draws.ts";
export { jointPair, type JointPair, type SidesOf } from "./joint.ts";
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
export { climbFigures, climbRow, type ClimbFigures } from "./climbs.ts";
export { fittedBike } from "./fitted.ts";
export { inAir, seasonRange, SEASONS, type Season, type SeasonRange } from "./seasons.ts";
export { claimReport, type ClaimEnd, type ClaimInput, type ClaimReport } from "./claims.ts";
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
export { bikeCells, type BikeCell } from "./cells.ts";
export { withoutOne, type WithoutOne } from "./leaveOut.ts";
export { steadyRows } from "./steadyRows.ts";
