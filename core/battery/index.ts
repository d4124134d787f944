export { chemistrySchema, ocvTableSchema, packSchema, type Pack } from "./schema.ts";
export { NOMINAL_CELL_VOLTS, OCV, seriesOfVolts, type Chemistry, type OcvTable } from "./tables.ts";
export { cellCurve, curveOf, fractionFromVolts, straightLineCharge, type CellCurve } from "./curve.ts";
export {
  labelEnergy,
  expectedFade,
  temperatureFactor,
  usableEnergy,
  usableOnRide,
  voltsLimits,
  type UsableEnergy,
} from "./energy.ts";
export {
  defaultResistance,
  packResistance,
  resistanceFromPairs,
  resistanceFromSteps,
  type RestLoadPair,
} from "./resistance.ts";
export { expectedShare, packHealth, yearsBetween, type CapacityPoint, type PackHealth } from "./health.ts";
export { packSheet } from "./sheet.ts";
