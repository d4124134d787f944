import { z } from "zod";
import {
  DEFAULTS,
  formatInput,
  MPS_PER_MPH,
  parseNumber,
  parseQuantity,
  unitOf,
  type DimensionName,
  type System,
} from "#core/base";
import {
  benchSchema,
  bikeSchema,
  instrumentSchema,
  packRecordSchema,
  riderSchema,
  setUpSchema,
  type Bike,
  type Instrument,
  type PackRecord,
  type Rider,
  type SetUp,
} from "#core/records";
import {
  choice,
  linesText,
  listText,
  numberText,
  pencilText,
  quantityText,
  readInto,
  shareText,
  tick,
  weightText,
  words,
} from "#app/ui/formText";

/** The forms of this station: what a person types, read into core's records; and records written back as form texts. */
type Texts = Readonly<Record<string, string>>;

const shown = (value: number | undefined, name: DimensionName, system: System) =>
  value === undefined ? "" : formatInput(value, name, unitOf(name, system));
const plain = (value: number | undefined) => (value === undefined ? "" : String(value));
const on = (value: boolean) => (value ? "on" : "");

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

const CLAIM =
  /^(?:([^:]+):)?\s*(?:up to|upwards of|over|more than|at least|about|around)?\s*([\d.,]+)\s*(?:(?:to|-|–)\s*([\d.,]+)\s*)?([a-z]*)\s*\+?\s*([a-z]*)\s*(?:[,;]\s*(.*))?$/i;

/** Claims, one a line: "eco: 40 to 60 mi, level road". */
const claimsText = (system: System) =>
  linesText.transform((lines, context): Bike["claims"] => {
    const unit = unitOf("distance", system);
    const claims: Bike["claims"] = [];
    for (const line of lines) {
      const match = CLAIM.exec(line);
      const read = (text: string | undefined) =>
        text === undefined
          ? null
          : parseQuantity(`${text} ${match![4] || match![5] || unit}`, "distance", unit);
      const [low, high] = match ? [read(match[2]), read(match[3] ?? match[2])] : [null, null];
      if (!low?.ok || !high?.ok) {
        context.addIssue({
          code: "custom",
          message: `“${line}” is not a claim: type one a line, such as “eco: 40 to 60 ${unit}, level road”.`,
        });
        return z.NEVER;
      }
      if (low.value > high.value) {
        context.addIssue({
          code: "custom",
          message: `“${line}”: its upper end lies below its lower end. Swap them.`,
        });
        return z.NEVER;
      }
      claims.push({
        mode: match![1]?.trim() ?? "",
        lowM: low.value,
        highM: high.value,
        conditions: match![6]?.trim() ?? "",
      });
    }
    return claims;
  });

const claimsWritten = (claims: Bike["claims"], system: System) =>
  claims
    .map(({ mode, lowM, highM, conditions }) => {
      const [low, high] = [lowM, highM].map((m) => formatInput(m, "distance", unitOf("distance", system)));
      const bare = low!.replace(/ \D+$/, "");
      return `${mode ? `${mode}: ` : ""}${lowM === highM ? high : `${bare} to ${high}`}${conditions ? `, ${conditions}` : ""}`;
    })
    .join("\n");

const REPORTED =
  /^(?:([^:]+):)?\s*(throttle\s+)?([\d.,]+)\s*([a-z]*)\s+(?:on|from|with)\s+([\d.,]+\s*[a-z]*)$/i;

/** What others published, one a line: "Quay notes: 31 mi on 460 Wh", or "throttle 22 mi on 480 Wh". */
const reportedText = (system: System) =>
  linesText.transform((lines, context): Bike["reported"] => {
    const unit = unitOf("distance", system);
    const reported: Bike["reported"] = [];
    for (const line of lines) {
      const match = REPORTED.exec(line);
      const distance = match && parseQuantity(`${match[3]} ${match[4] || unit}`, "distance", unit);
      const energy = match && parseQuantity(match[5]!, "energy", "Wh");
      if (!distance?.ok || !energy?.ok) {
        context.addIssue({
          code: "custom",
          message: `“${line}” is no such figure: type one a line, such as “Quay notes: 31 ${unit} on 460 Wh”.`,
        });
        return z.NEVER;
      }
      reported.push({
        by: match![1]?.trim() ?? "",
        drive: match![2] ? "throttle" : "pedal",
        distanceM: distance.value,
        energyWh: energy.value,
      });
    }
    return reported;
  });

const reportedWritten = (reported: Bike["reported"], system: System) =>
  reported
    .map(({ by, drive, distanceM, energyWh }) => {
      const distance = formatInput(distanceM, "distance", unitOf("distance", system));
      return `${by ? `${by}: ` : ""}${drive === "throttle" ? "throttle " : ""}${distance} on ${formatInput(energyWh, "energy", "Wh")}`;
    })
    .join("\n");

/** A price: "1899 EUR" or "1899.50". */
const priceText = choice.transform((text, context) => {
  if (text === undefined) return { priceMinor: undefined, currency: undefined };
  const match = /^([\d.,\s']+?)\s*([A-Za-z]{3})?$/.exec(text);
  const amount = match ? parseNumber(match[1]!) : undefined;
  if (typeof amount === "number")
    return { priceMinor: Math.round(amount * 100), currency: match![2]?.toUpperCase() };
  context.addIssue({
    code: "custom",
    message:
      amount === "ambiguous"
        ? `“${text}” can be read two ways: type it without the comma.`
        : `“${text}” is not a price: type for example 1899 EUR.`,
  });
  return z.NEVER;
});

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

const LIGHTEST_RIDER_KG = 38;
const HEAVIEST_RIDER_KG = 150;

export const riderForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      massKg: weightText("a dressed rider", LIGHTEST_RIDER_KG, HEAVIEST_RIDER_KG, system),
      lowBpm: numberText,
      lowW: numberText,
      highBpm: numberText,
      highW: numberText,
      note: words,
      pencil: pencilText,
    }),
    riderSchema,
  );
export const RIDER_FIELDS = ["name", "massKg", "lowBpm", "lowW", "highBpm", "highW", "note"] as const;
export const NEW_RIDER: Rider = { name: "", note: "", pencil: [] };
export const riderTexts = (rider: Rider, system: System): Texts => ({
  name: rider.name,
  massKg: shown(rider.massKg, "mass", system),
  lowBpm: plain(rider.lowBpm),
  lowW: plain(rider.lowW),
  highBpm: plain(rider.highBpm),
  highW: plain(rider.highW),
  note: rider.note,
});

export const setUpForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      since: choice,
      tyre: words,
      tyreClass: choice,
      tyreWidthM: quantityText("length", system),
      pressurePa: quantityText("pressure", system),
      maxPressurePa: quantityText("pressure", system),
      posture: choice,
      lightsOn: tick,
      carriedKg: quantityText("mass", system).transform((kg) => kg ?? 0),
      changed: words,
      pencil: pencilText,
    }),
    setUpSchema,
  );

export const SET_UP_FIELDS = [
  "name",
  "since",
  "tyre",
  "tyreClass",
  "tyreWidthM",
  "pressurePa",
  "maxPressurePa",
  "posture",
  "lightsOn",
  "carriedKg",
  "changed",
] as const;
export const NEW_SET_UP: SetUp = {
  name: "",
  tyre: "",
  tyreClass: "city",
  posture: "upright",
  lightsOn: false,
  carriedKg: 0,
  changed: "",
  pencil: ["tyreClass", "posture", "carriedKg"],
};

export function setUpTexts(setUp: SetUp, system: System): Texts {
  return {
    name: setUp.name,
    since: setUp.since ?? "",
    tyre: setUp.tyre,
    tyreClass: setUp.tyreClass,
    tyreWidthM: shown(setUp.tyreWidthM, "length", system),
    pressurePa: shown(setUp.pressurePa, "pressure", system),
    maxPressurePa: shown(setUp.maxPressurePa, "pressure", system),
    posture: setUp.posture,
    lightsOn: on(setUp.lightsOn),
    carriedKg: shown(setUp.carriedKg, "mass", system),
    changed: setUp.changed,
  };
}

const percent = (share: number | undefined) =>
  share === undefined ? "" : `${Number((100 * share).toFixed(2))} %`;

export const instrumentForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      kind: choice,
      gainSd: shareText,
      eta: shareText,
      etaSd: shareText,
      amps: quantityText("current", system),
      note: words,
      pencil: pencilText,
    }),
    instrumentSchema,
  );
export const INSTRUMENT_FIELDS = ["name", "kind", "gainSd", "eta", "etaSd", "amps", "note"] as const;
export const NEW_INSTRUMENT: Instrument = { name: "", kind: "energy meter", note: "", pencil: [] };
export const instrumentTexts = (instrument: Instrument, system: System): Texts => ({
  name: instrument.name,
  kind: instrument.kind,
  gainSd: percent(instrument.gainSd),
  eta: percent(instrument.eta),
  etaSd: percent(instrument.etaSd),
  amps: shown(instrument.amps, "current", system),
  note: instrument.note,
});

export const benchForm = (system: System) =>
  readInto(
    z.object({
      on: choice,
      fromFull: tick,
      startVolts: quantityText("volts", system),
      hours: quantityText("duration", system, "h").transform((s) => (s === undefined ? undefined : s / 3600)),
      wh: quantityText("energy", system),
      sdWh: quantityText("energy", system),
      startTempC: quantityText("temperature", system),
      highestTempC: quantityText("temperature", system),
      instrument: words,
      by: words,
      note: words,
    }),
    benchSchema,
  );
export const BENCH_FIELDS = [
  "on",
  "fromFull",
  "startVolts",
  "hours",
  "wh",
  "sdWh",
  "startTempC",
  "highestTempC",
  "instrument",
  "by",
  "note",
] as const;
