import { z } from "zod";
import { type System } from "#core/base";
import { packRecordSchema, type PackRecord } from "#core/records";
import { choice, numberText, pencilText, quantityText, readInto, words } from "#app/ui/formText";

import { plain, priceText, shown, type Texts } from "./texts";

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
      massKg: quantityText("mass", system),
      priceMinor: priceText.transform(({ priceMinor }) => priceMinor),
      storage: words,
      lastFullOn: choice,
      highestTempC: quantityText("temperature", system),
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
  "massKg",
  "priceMinor",
  "storage",
  "lastFullOn",
  "highestTempC",
  "resistanceOhm",
  "ocv",
] as const;
/** A new pack's form; its energy is still to be typed. */
export const NEW_PACK: PackRecord = {
  name: "Main pack",
  chemistry: "NMC",
  measuredBefore: [],
  storage: "",
  pencil: ["name", "chemistry"],
};

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
    massKg: shown(pack.massKg, "mass", system),
    priceMinor: pack.priceMinor === undefined ? "" : String(pack.priceMinor / 100),
    storage: pack.storage,
    lastFullOn: pack.lastFullOn ?? "",
    highestTempC: shown(pack.highestTempC, "temperature", system),
    resistanceOhm: plain(pack.resistanceOhm),
    ocv: pack.ocv
      ? pack.ocv.q.map((q, i) => `${Number((q * 100).toFixed(2))} ${pack.ocv!.volts[i]}`).join(", ")
      : "",
  };
}
