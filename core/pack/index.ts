export { chemistrySchema, packSchema, type Pack } from "./schema.ts";
export { NOMINAL_CELL_VOLTS, OCV, type Chemistry, type OcvTable } from "./tables.ts";
export { cellCurve, curveOf, fractionFromVolts, straightLineCharge, type CellCurve } from "./curve.ts";
export {
  defaultResistance,
  labelEnergy,
  temperatureFactor,
  usableEnergy,
  voltsLimits,
  type UsableEnergy,
} from "./energy.ts";
