import { z } from "zod";
import { DEFAULTS, formatInput, MPS_PER_MPH, unitOf, type System } from "#core/base";
import { bikeSchema, type Bike } from "#core/records";
import {
  choice,
  listText,
  numberText,
  pencilText,
  quantityText,
  readInto,
  tick,
  weightText,
  words,
} from "#app/ui/formText";

import { on, plain, priceText, shown, type Texts } from "./texts";
import { claimsText, claimsWritten, reportedText, reportedWritten } from "./published";

/** Levels with the share of power each gives, if known: "low 25 %, high 100 %" or "low, high". */
const levelsText = listText.transform((parts) =>
  parts.map((part) => {
    const match = /^(.+?)\s+(\d+(?:[.,]\d+)?)\s*%$/.exec(part);
    return match
      ? { name: match[1]!.trim(), share: Number(match[2]!.replace(",", ".")) / 100 }
      : { name: part, share: null };
  }),
);

const levelsWritten = ({ levels, levelShares }: Bike) =>
  levels
    .map((name, i) => (levelShares.length ? `${name} ${Number((100 * levelShares[i]!).toFixed(1))} %` : name))
    .join(", ");

const LIGHTEST_KG = 12;
const HEAVIEST_KG = 70;

export const bikeForm = (system: System) =>
  readInto(
    z
      .object({
        name: choice,
        what: words,
        massKg: weightText("an e-bike", LIGHTEST_KG, HEAVIEST_KG, system),
        massWithoutPackKg: weightText("an e-bike", LIGHTEST_KG - 3, HEAVIEST_KG, system),
        motor: choice,
        motorW: numberText,
        sensor: choice,
        levels: levelsText,
        throttle: tick,
        assistToMps: quantityText("speed", system),
        percentStep: numberText.transform((step) => step ?? 0),
        counts: choice,
        bars: numberText.transform((bars) => bars ?? 0),
        barsAre: choice,
        meterStepV: quantityText("volts", system),
        powerShown: choice,
        wheelCircumferenceM: quantityText("length", system),
        brakes: words,
        comfort: words,
        price: priceText,
        claims: claimsText(system),
        reported: reportedText(system),
        pencil: pencilText,
      })
      .transform(({ price, levels, ...rest }) => ({
        ...rest,
        ...price,
        levels: levels.map(({ name }) => name),
        levelShares: levels.flatMap(({ share }) => (share === null ? [] : [share])),
      })),
    bikeSchema,
  );

export const BIKE_FIELDS = [
  "name",
  "what",
  "massKg",
  "massWithoutPackKg",
  "motor",
  "motorW",
  "sensor",
  "levels",
  "throttle",
  "assistToMps",
  "percentStep",
  "counts",
  "bars",
  "barsAre",
  "meterStepV",
  "powerShown",
  "wheelCircumferenceM",
  "brakes",
  "comfort",
  "price",
  "claims",
  "reported",
] as const;

/** A new bike's form: what is common, in pencil. */
export const NEW_BIKE: Bike = bikeSchema.parse({
  name: "new",
  levels: ["low", "mid", "high"],
  assistToMps: DEFAULTS.assistToMph * MPS_PER_MPH,
  pencil: [
    "motor",
    "sensor",
    "levels",
    "assistToMps",
    "percentStep",
    "counts",
    "bars",
    "meterStepV",
    "powerShown",
  ],
});

export function bikeTexts(bike: Bike, system: System): Texts {
  return {
    name: bike === NEW_BIKE ? "" : bike.name,
    what: bike.what,
    massKg: shown(bike.massKg, "mass", system),
    massWithoutPackKg: shown(bike.massWithoutPackKg, "mass", system),
    motor: bike.motor,
    motorW: plain(bike.motorW),
    sensor: bike.sensor,
    levels: levelsWritten(bike),
    throttle: on(bike.throttle),
    assistToMps:
      bike.assistToMps === undefined
        ? ""
        : formatInput(bike.assistToMps, "speed", unitOf("speed", system), 1),
    percentStep: plain(bike.percentStep),
    counts: bike.counts,
    bars: plain(bike.bars),
    barsAre: bike.barsAre,
    meterStepV: shown(bike.meterStepV, "volts", system),
    powerShown: bike.powerShown,
    wheelCircumferenceM: shown(bike.wheelCircumferenceM, "length", system),
    brakes: bike.brakes,
    comfort: bike.comfort,
    price: bike.priceMinor === undefined ? "" : `${bike.priceMinor / 100} ${bike.currency}`,
    claims: claimsWritten(bike.claims, system),
    reported: reportedWritten(bike.reported, system),
  };
}
