import { METRES_PER_MILE, MPS_PER_MPH, PA_PER_PSI } from "#core/base";
import type { z } from "zod";
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

/**
 * The demo desk: a cargo-bike and city-bike library in a tidal town of harbour brick, a salt-marsh levee, a disused
 * tramway and a water-tower hill. Everything here is invented.
 */
const mi = (miles: number) => miles * METRES_PER_MILE;

export interface DeskBike {
  readonly bike: Bike;
  readonly packs: Readonly<Record<string, PackRecord>>;
  readonly setUps: Readonly<Record<string, SetUp>>;
}

const mph = (miles: number) => miles * MPS_PER_MPH;

const bike = (value: z.input<typeof bikeSchema>): Bike => bikeSchema.parse(value);
const pack = (value: z.input<typeof packRecordSchema>): PackRecord => packRecordSchema.parse(value);
const rider = (value: z.input<typeof riderSchema>): Rider => riderSchema.parse(value);
const setUp = (
  name: string,
  tyre: string,
  psi: number,
  rest: Partial<z.input<typeof setUpSchema>> = {},
): SetUp => setUpSchema.parse({ name, tyre, pressurePa: Math.round(psi * PA_PER_PSI), ...rest });

export const RIDERS: Readonly<Record<"maren" | "idris" | "tove", Rider>> = {
  maren: rider({ name: "Maren", massKg: 71, lowBpm: 104, lowW: 55, highBpm: 148, highW: 145 }),
  idris: rider({ name: "Idris", massKg: 88, note: "rides in boots" }),
  tove: rider({ name: "Tove" }),
};

export const BIKES = {
  hauler: {
    bike: bike({
      name: "Ondrey Hauler",
      what: "long-tail cargo bike, 20 and 26 inch wheels, disc brakes, child rails",
      massKg: 37.5,
      massWithoutPackKg: 33.9,
      motorW: 500,
      sensor: "cadence",
      levelShares: [0.4, 0.7, 1],
      assistToMps: mph(20),
      powerShown: "watts",
      brakes: "four-piston hydraulic, 180 mm",
      priceMinor: 419_900,
      motor: "hub",
      levels: ["low", "mid", "high"],
      throttle: true,
      percentStep: 1,
      counts: "charge",
      bars: 0,
      meterStepV: 0.1,
      wheelCircumferenceM: 2.05,
      claims: [
        { mode: "low", lowM: mi(45), highM: mi(60), conditions: "75 kg rider, level road" },
        { mode: "high", lowM: mi(28), highM: mi(35), conditions: "" },
      ],
      pencil: ["counts"],
    }),
    packs: {
      main: pack({
        name: "Frame pack",
        chemistry: "NMC",
        labelWh: 672,
        ampHours: 14,
        seriesCells: 13,
        measuredWh: 633,
        measuredSdWh: 9,
        measuredOn: "2026-02-20",
        firstUsedOn: "2024-03-11",
        cycles: 190,
        massKg: 3.6,
        priceMinor: 64_900,
        storage: "library cellar, about half full",
        highestTempC: 41,
      }),
      rail: pack({
        name: "Rail pack",
        chemistry: "NMC",
        labelWh: 480,
        ampHours: 10,
        seriesCells: 13,
        priceMinor: 47_900,
      }),
    },
    setUps: {
      bare: setUp("bare rails", "city tyre, 2.2 inch", 40, { since: "2026-02-21", maxPressurePa: 345_000 }),
      child: setUp("child on the rails", "city tyre, 2.2 inch", 44, { carriedKg: 19, since: "2026-03-02" }),
    },
  },
  brindlow: {
    bike: bike({
      name: "Brindlow 3",
      what: "three-speed city bike, belt drive, mid motor, no suspension",
      massKg: 20.4,
      massWithoutPackKg: 18.1,
      motorW: 250,
      sensor: "torque",
      assistToMps: mph(15.5),
      comfort: "upright bars, sprung seat-post",
      brakes: "hydraulic",
      priceMinor: 259_000,
      motor: "mid",
      levels: ["calm", "town", "brisk"],
      throttle: false,
      percentStep: 1,
      counts: "charge",
      bars: 5,
      meterStepV: 0.1,
      wheelCircumferenceM: 2.18,
      claims: [{ mode: "calm", lowM: mi(50), highM: mi(50), conditions: "not stated" }],
      pencil: ["counts", "meterStepV"],
    }),
    packs: {
      main: pack({
        name: "Down-tube pack",
        chemistry: "NMC",
        labelWh: 418,
        ampHours: 11.6,
        seriesCells: 10,
        firstUsedOn: "2025-04-14",
        cycles: 70,
        priceMinor: 52_900,
      }),
      long: pack({
        name: "Long down-tube pack",
        chemistry: "NMC",
        labelWh: 522,
        ampHours: 14.5,
        seriesCells: 10,
        priceMinor: 68_900,
      }),
    },
    setUps: {
      slick: setUp("slick tyres", "slick, 1.4 inch", 60),
      knobbly: setUp("winter tyres", "knobbly, 1.75 inch", 45, {
        lightsOn: true,
        tyreClass: "knobbly",
        since: "2026-01-05",
      }),
    },
  },
  pellam: {
    bike: bike({
      name: "Pellam Step",
      what: "step-through with panniers, hub motor, upright, the library's most lent bike",
      massKg: 26.1,
      motorW: 250,
      sensor: "cadence",
      assistToMps: mph(15.5),
      priceMinor: 179_900,
      motor: "hub",
      levels: ["1", "2", "3", "4", "5"],
      throttle: false,
      percentStep: 0,
      counts: "charge",
      bars: 5,
      meterStepV: 0.1,
      claims: [{ mode: "", lowM: mi(30), highM: mi(55), conditions: "" }],
      pencil: ["meterStepV"],
    }),
    packs: {
      rack: pack({
        name: "Rack pack",
        chemistry: "NMC",
        labelWh: 480,
        ampHours: 13.4,
        seriesCells: 10,
        pencil: ["seriesCells"],
      }),
    },
    setUps: {
      light: setUp("day, empty panniers", "city tyre, 1.75 inch", 50, {
        posture: "panniers or step-through",
      }),
      laden: setUp("lights and 12 kg", "city tyre, 1.75 inch", 50, {
        lightsOn: true,
        carriedKg: 12,
        posture: "panniers or step-through",
      }),
    },
  },
  tarrick: {
    bike: bike({
      name: "Tarrick Fold",
      what: "folding bike, 16 inch wheels, small hub motor, no display but lamps and a volts menu",
      massKg: 17.2,
      motorW: 250,
      barsAre: "lamp colours",
      priceMinor: 129_900,
      motor: "hub",
      levels: ["on"],
      throttle: false,
      percentStep: 0,
      counts: "charge",
      bars: 4,
      meterStepV: 0.1,
      claims: [{ mode: "", lowM: mi(25), highM: mi(25), conditions: "" }],
      pencil: ["counts"],
    }),
    packs: {
      seat: pack({ name: "Seat-post pack", chemistry: "NMC", labelWh: 252, ampHours: 7, seriesCells: 10 }),
    },
    setUps: { only: setUp("as lent", "slick, 1.35 inch", 80) },
  },
  vessock: {
    bike: bike({
      name: "Vessock Fat",
      what: "fat-tyre bike with throttle, iron-phosphate pack, suspension fork, bright lights",
      massKg: 33.8,
      massWithoutPackKg: 27.6,
      motorW: 750,
      sensor: "cadence",
      assistToMps: mph(20),
      powerShown: "a bar of power",
      brakes: "hydraulic, 203 mm",
      priceMinor: 224_900,
      motor: "hub",
      levels: ["eco", "tour", "boost"],
      throttle: true,
      percentStep: 5,
      counts: "charge",
      bars: 5,
      meterStepV: 0.1,
      wheelCircumferenceM: 2.26,
      claims: [{ mode: "", lowM: mi(35), highM: mi(50), conditions: "" }],
      pencil: ["counts"],
    }),
    packs: {
      main: pack({
        name: "Iron-phosphate pack",
        chemistry: "LFP",
        labelWh: 720,
        ampHours: 14.1,
        seriesCells: 16,
      }),
    },
    setUps: {
      fat: setUp("fat tyres, soft", "fat, 4 inch", 14, { tyreClass: "fat" }),
      firm: setUp("fat tyres, firm", "fat, 4 inch", 22, { tyreClass: "fat" }),
    },
  },
} satisfies Record<string, DeskBike>;
