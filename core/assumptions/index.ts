/**
 * Every default the computation leans on, in one table. The interface shows each as "assumed"; bike, pack or test can
 * override the ones that are theirs. Source of all: the tester's rules of thumb and the pack maths of docs/method.md.
 */
const TABLE = {
  labelDerate: [0.95, "fraction", "usable share of the label's energy, without a measurement"],
  labelSd: [0.04, "fraction", "1 sd of usable energy, without a measurement"],
  measuredSdFloor: [0.015, "fraction", "least 1 sd of a measured capacity"],
  fadePerYear: [0.02, "fraction", "capacity a pack loses in a year"],
  fadePerCycle: [0.0003, "fraction", "capacity a pack loses in a full cycle"],
  fadeSdShare: [0.4, "fraction", "doubt of that loss, 1 sd"],
  packTempC: [20, "C", "pack temperature when none was noted"],
  cellOhm: [0.012, "ohm", "resistance of one cell in series, for one parallel string"],
  stringAh: [3, "Ah", "charge of one parallel string, for the resistance"],
  fullStartSd: [0.01, "fraction", "how full a charger that says done has left the pack, 1 sd"],
  smoothSd: [0.02, "fraction", "slow error of a gauge, or of the volts curve, 1 sd"],
  smoothLength: [0.2, "fraction", "how far along the charge such a slow error stays alike"],
  restedVoltsSd: [0.005, "V per cell", "rest volts after 10 minutes, 1 sd"],
  unrestedVoltsSd: [0.02, "V per cell", "rest volts before 10 minutes, 1 sd"],
  restedMinutes: [10, "min", "rest after which volts count as settled"],
  resistanceSdShare: [0.3, "fraction", "doubt of the resistance in loaded volts, 1 sd"],
  barThresholdSd: [0.3, "bars", "where a bar really goes, against equal bars, 1 sd"],
  barSightingSd: [0.02, "fraction", "seeing the bar go late or early, 1 sd"],
  lastBarAt: [0.5, "bars", "charge left when the last bar starts to blink"],
  lastBarSd: [0.35, "bars", "doubt of that point, 1 sd"],
  lowPowerAt: [0.92, "fraction", "energy used when low-power mode begins"],
  lowPowerSd: [0.03, "fraction", "doubt of that point, 1 sd"],
  lowPowerSightingSd: [0.005, "fraction", "seeing low-power mode begin, 1 sd"],
  cutOffSd: [0.015, "fraction", "where the pack cuts off, against all used, 1 sd"],
  energyGainSd: [0.01, "fraction", "an energy counter's gain, 1 sd"],
  chargeGainSd: [0.018, "fraction", "a charge counter's gain and its volts, 1 sd"],
  shuntGainSd: [0.015, "fraction", "a logger's shunt, 1 sd"],
  gapSdShare: [0.3, "fraction", "doubt of the energy in a gap of the telemetry, 1 sd"],
  tapSd: [2, "s", "how late a check-in is tapped, 1 sd"],
  chargerEta: [0.86, "fraction", "wall energy that reaches the pack"],
  chargerEtaSd: [0.03, "fraction", "doubt of that, 1 sd"],
  rateWhPerMi: [15, "Wh/mi", "what a mile costs before anything is known"],
  rateSdWhPerMi: [15, "Wh/mi", "doubt of that, 1 sd"],
  scatterShare: [0.25, "fraction", "scatter of one mile about the level's rate, 1 sd"],
  shortestLegMi: [0.01, "mi", "least distance between marks, for the scatter"],
  pairedShare: [0.7, "fraction", "scatter that runs of one section have in common"],
  startSd: [1, "fraction", "doubt of the charge at a start nobody noted"],
  startAt: [0.5, "fraction", "charge used at a start nobody noted"],
  liftEfficiency: [0.75, "fraction", "battery to height"],
  liftSdShare: [0.25, "fraction", "doubt of the energy per metre climbed, 1 sd"],
  descentShare: [-0.5, "fraction", "energy per metre down against a metre up"],
  gpsScaleSd: [0.005, "fraction", "track distance, 1 sd"],
  odometerSdFloor: [0.005, "fraction", "least doubt of an odometer factor, 1 sd"],
  uncheckedOdometerSd: [0.03, "fraction", "a display's distance never checked against a track, 1 sd"],
  odometerWarn: [0.03, "fraction", "odometer error that is worth a warning"],
  reserve: [0.2, "fraction", "charge the owner keeps back"],
  drivetrainEfficiency: [0.95, "fraction", "pedals or motor to the wheel"],
  motorEfficiency: [0.8, "fraction", "battery to the motor's shaft"],
  idleW: [4, "W", "what display and controller draw"],
  lightsW: [6, "W", "what lights draw when on"],
  dragAreaM2: [0.55, "m2", "drag area of an upright rider"],
  rollingAsphalt: [0.007, "fraction", "rolling resistance of a city tyre on asphalt"],
  rideMph: [12, "mph", "speed at which a ride takes its time, for what to measure next"],
  benchMinutes: [40, "min", "a person's time for a bench discharge"],
  refillMinutes: [4, "min", "a person's time to read a wall meter over a full charge"],
  restMinutes: [12, "min", "to wait for rest volts and read them"],
  meterMinutes: [10, "min", "to put a meter on"],
  massKg: [100, "kg", "bike, rider and load when not weighed"],
} as const satisfies Record<string, readonly [number, string, string]>;

export type AssumptionName = keyof typeof TABLE;

/** The default values by name. Example: `ASSUMED.labelDerate === 0.95`. */
export const ASSUMED = Object.fromEntries(Object.entries(TABLE).map(([name, row]) => [name, row[0]])) as {
  readonly [Name in AssumptionName]: number;
};

/** The table for people: name, value, unit and what it is. */
export const assumptionRows = Object.entries(TABLE).map(([name, [value, unit, what]]) => ({
  name,
  value,
  unit,
  what,
}));
