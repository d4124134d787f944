import { METRES_PER_MILE, PA_PER_PSI } from "#core/quantities";
import type { Bike, PackRecord, Rider, SetUp } from "#core/records";

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

const pack = (value: Omit<PackRecord, "pencil"> & { pencil?: string[] }): PackRecord => ({
  pencil: [],
  ...value,
});
const setUp = (name: string, tyre: string, psi: number, rest: Partial<SetUp> = {}): SetUp => ({
  name,
  tyre,
  pressurePa: Math.round(psi * PA_PER_PSI),
  lightsOn: false,
  carriedKg: 0,
  pencil: [],
  ...rest,
});

export const RIDERS: Readonly<Record<"maren" | "idris" | "tove", Rider>> = {
  maren: { name: "Maren", massKg: 71, pencil: [] },
  idris: { name: "Idris", massKg: 88, pencil: [] },
  tove: { name: "Tove", pencil: [] },
};

export const BIKES = {
  hauler: {
    bike: {
      name: "Ondrey Hauler",
      what: "long-tail cargo bike, 20 and 26 inch wheels, disc brakes, child rails",
      massKg: 37.5,
      motor: "hub",
      levels: ["low", "mid", "high"],
      throttle: true,
      percentStep: 1,
      counts: "charge",
      bars: 0,
      meterStepV: 0.1,
      wheelCircumferenceM: 2.05,
      claimLowM: mi(45),
      claimHighM: mi(60),
      pencil: ["counts"],
    },
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
      }),
      rail: pack({ name: "Rail pack", chemistry: "NMC", labelWh: 480, ampHours: 10, seriesCells: 13 }),
    },
    setUps: {
      bare: setUp("bare rails", "city tyre, 2.2 inch", 40),
      child: setUp("child on the rails", "city tyre, 2.2 inch", 44, { carriedKg: 19 }),
    },
  },
  brindlow: {
    bike: {
      name: "Brindlow 3",
      what: "three-speed city bike, belt drive, mid motor, no suspension",
      massKg: 20.4,
      motor: "mid",
      levels: ["calm", "town", "brisk"],
      throttle: false,
      percentStep: 1,
      counts: "charge",
      bars: 5,
      meterStepV: 0.1,
      wheelCircumferenceM: 2.18,
      claimLowM: mi(50),
      claimHighM: mi(50),
      pencil: ["counts", "meterStepV"],
    },
    packs: {
      main: pack({
        name: "Down-tube pack",
        chemistry: "NMC",
        labelWh: 418,
        ampHours: 11.6,
        seriesCells: 10,
        firstUsedOn: "2025-04-14",
        cycles: 70,
      }),
    },
    setUps: {
      slick: setUp("slick tyres", "slick, 1.4 inch", 60),
      knobbly: setUp("winter tyres", "knobbly, 1.75 inch", 45, { lightsOn: true }),
    },
  },
  pellam: {
    bike: {
      name: "Pellam Step",
      what: "step-through with panniers, hub motor, upright, the library's most lent bike",
      massKg: 26.1,
      motor: "hub",
      levels: ["1", "2", "3", "4", "5"],
      throttle: false,
      percentStep: 0,
      counts: "charge",
      bars: 5,
      meterStepV: 0.1,
      claimLowM: mi(30),
      claimHighM: mi(55),
      pencil: ["meterStepV"],
    },
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
      light: setUp("day, empty panniers", "city tyre, 1.75 inch", 50),
      laden: setUp("lights and 12 kg", "city tyre, 1.75 inch", 50, { lightsOn: true, carriedKg: 12 }),
    },
  },
  tarrick: {
    bike: {
      name: "Tarrick Fold",
      what: "folding bike, 16 inch wheels, small hub motor, no display but lamps and a volts menu",
      massKg: 17.2,
      motor: "hub",
      levels: ["on"],
      throttle: false,
      percentStep: 0,
      counts: "charge",
      bars: 4,
      meterStepV: 0.1,
      claimLowM: mi(25),
      claimHighM: mi(25),
      pencil: ["counts"],
    },
    packs: {
      seat: pack({ name: "Seat-post pack", chemistry: "NMC", labelWh: 252, ampHours: 7, seriesCells: 10 }),
    },
    setUps: { only: setUp("as lent", "slick, 1.35 inch", 80) },
  },
  vessock: {
    bike: {
      name: "Vessock Fat",
      what: "fat-tyre bike with throttle, iron-phosphate pack, suspension fork, bright lights",
      massKg: 33.8,
      motor: "hub",
      levels: ["eco", "tour", "boost"],
      throttle: true,
      percentStep: 5,
      counts: "charge",
      bars: 5,
      meterStepV: 0.1,
      wheelCircumferenceM: 2.26,
      claimLowM: mi(35),
      claimHighM: mi(50),
      pencil: ["counts"],
    },
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
      fat: setUp("fat tyres, soft", "fat, 4 inch", 14),
      firm: setUp("fat tyres, firm", "fat, 4 inch", 22),
    },
  },
} as const satisfies Record<string, DeskBike>;
