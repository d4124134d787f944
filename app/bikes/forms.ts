import { z } from "zod";
import { formatInput, unitOf, type DimensionName, type System } from "#core/quantities";
import {
  bikeSchema,
  packRecordSchema,
  riderSchema,
  setUpSchema,
  type Bike,
  type PackRecord,
  type Rider,
  type SetUp,
} from "#core/records";
import {
  choice,
  listText,
  numberText,
  pencilText,
  quantityText,
  readInto,
  tick,
  words,
} from "#app/ui/formText";

/** The forms of this station: what a person types, read into core's records; and records written back as form texts. */
type Texts = Readonly<Record<string, string>>;

const shown = (value: number | undefined, name: DimensionName, system: System) =>
  value === undefined ? "" : formatInput(value, name, unitOf(name, system));
const plain = (value: number | undefined) => (value === undefined ? "" : String(value));
const on = (value: boolean) => (value ? "on" : "");

export const bikeForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      what: words,
      massKg: quantityText("mass", system),
      motor: choice,
      levels: listText,
      throttle: tick,
      percentStep: numberText.transform((step) => step ?? 0),
      counts: choice,
      bars: numberText.transform((bars) => bars ?? 0),
      meterStepV: quantityText("volts", system),
      wheelCircumferenceM: quantityText("length", system),
      claimLowM: quantityText("distance", system),
      claimHighM: quantityText("distance", system),
      pencil: pencilText,
    }),
    bikeSchema,
  );

export const BIKE_FIELDS = [
  "name",
  "what",
  "massKg",
  "motor",
  "levels",
  "throttle",
  "percentStep",
  "counts",
  "bars",
  "meterStepV",
  "wheelCircumferenceM",
  "claimLowM",
  "claimHighM",
] as const;

/** A new bike's form: what is common, in pencil. */
export const NEW_BIKE: Bike = {
  name: "",
  what: "",
  motor: "hub",
  levels: ["low", "mid", "high"],
  throttle: false,
  percentStep: 1,
  counts: "charge",
  bars: 0,
  meterStepV: 0.1,
  pencil: ["motor", "levels", "percentStep", "counts", "bars", "meterStepV"],
};

export function bikeTexts(bike: Bike, system: System): Texts {
  return {
    name: bike.name,
    what: bike.what,
    massKg: shown(bike.massKg, "mass", system),
    motor: bike.motor,
    levels: bike.levels.join(", "),
    throttle: on(bike.throttle),
    percentStep: plain(bike.percentStep),
    counts: bike.counts,
    bars: plain(bike.bars),
    meterStepV: shown(bike.meterStepV, "volts", system),
    wheelCircumferenceM: shown(bike.wheelCircumferenceM, "length", system),
    claimLowM: shown(bike.claimLowM, "distance", system),
    claimHighM: shown(bike.claimHighM, "distance", system),
  };
}

/** A pack's own rest-volts curve as pairs of percent and cell volts: "0 3.0, 50 3.70, 100 4.18"; empty is undefined. */
const curveText = choice.transform((text, context) => {
  if (text === undefined) return undefined;
  const pairs = text.split(/[,;\n]+/).map((pair) => pair.trim().split(/\s+/).map(Number));
  if (pairs.every((pair) => pair.length === 2 && pair.every(Number.isFinite)))
    return { q: pairs.map(([percent]) => percent! / 100), volts: pairs.map(([, volts]) => volts!) };
  context.addIssue({
    code: "custom",
    message: "Type pairs of percent and volts of one cell, such as: 0 3.0, 50 3.70, 100 4.18.",
  });
  return z.NEVER;
});

export const packForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      chemistry: choice,
      labelWh: quantityText("energy", system),
      ampHours: quantityText("charge", system),
      seriesCells: numberText,
      measuredWh: quantityText("energy", system),
      measuredSdWh: quantityText("energy", system),
      measuredOn: choice,
      firstUsedOn: choice,
      cycles: numberText,
      resistanceOhm: numberText,
      ocv: curveText,
      pencil: pencilText,
    }),
    packRecordSchema,
  );

export const PACK_FIELDS = [
  "name",
  "chemistry",
  "labelWh",
  "ampHours",
  "seriesCells",
  "measuredWh",
  "measuredSdWh",
  "measuredOn",
  "firstUsedOn",
  "cycles",
  "resistanceOhm",
  "ocv",
] as const;
export const NEW_PACK: PackRecord = { name: "Main pack", chemistry: "NMC", pencil: ["name", "chemistry"] };

export function packTexts(pack: PackRecord, system: System): Texts {
  return {
    name: pack.name,
    chemistry: pack.chemistry,
    labelWh: shown(pack.labelWh, "energy", system),
    ampHours: shown(pack.ampHours, "charge", system),
    seriesCells: plain(pack.seriesCells),
    measuredWh: shown(pack.measuredWh, "energy", system),
    measuredSdWh: shown(pack.measuredSdWh, "energy", system),
    measuredOn: pack.measuredOn ?? "",
    firstUsedOn: pack.firstUsedOn ?? "",
    cycles: plain(pack.cycles),
    resistanceOhm: plain(pack.resistanceOhm),
    ocv: pack.ocv
      ? pack.ocv.q.map((q, i) => `${Number((q * 100).toFixed(2))} ${pack.ocv!.volts[i]}`).join(", ")
      : "",
  };
}

export const riderForm = (system: System) =>
  readInto(z.object({ name: choice, massKg: quantityText("mass", system), pencil: pencilText }), riderSchema);
export const RIDER_FIELDS = ["name", "massKg"] as const;
export const NEW_RIDER: Rider = { name: "", pencil: [] };
export const riderTexts = (rider: Rider, system: System): Texts => ({
  name: rider.name,
  massKg: shown(rider.massKg, "mass", system),
});

export const setUpForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      tyre: words,
      pressurePa: quantityText("pressure", system),
      lightsOn: tick,
      carriedKg: quantityText("mass", system).transform((kg) => kg ?? 0),
      pencil: pencilText,
    }),
    setUpSchema,
  );

export const SET_UP_FIELDS = ["name", "tyre", "pressurePa", "lightsOn", "carriedKg"] as const;
export const NEW_SET_UP: SetUp = { name: "", tyre: "", lightsOn: false, carriedKg: 0, pencil: ["carriedKg"] };

export function setUpTexts(setUp: SetUp, system: System): Texts {
  return {
    name: setUp.name,
    tyre: setUp.tyre,
    pressurePa: shown(setUp.pressurePa, "pressure", system),
    lightsOn: on(setUp.lightsOn),
    carriedKg: shown(setUp.carriedKg, "mass", system),
  };
}
