import type { z } from "zod";
import { courseSchema, type Course } from "#core/route";
import { type methodSchema, planSchema, templateNamed, type Plan } from "#core/planning";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import { benchSchema, instrumentSchema, type Bench, type Instrument } from "#core/records";

/** What the desk keeps for the tests to come: instruments, bench sheets, courses, and plans. All invented. */
const mi = (miles: number) => miles * METRES_PER_MILE;
/** The tidal town lies nowhere; the sun is reckoned for a place at sea. */
const TOWN = { latitude: 53.6, longitude: 0.9, altitudeM: 4 };

const instrument = (value: z.input<typeof instrumentSchema>): Instrument => instrumentSchema.parse(value);
const course = (value: z.input<typeof courseSchema>): Course => courseSchema.parse({ ...TOWN, ...value });

export const INSTRUMENTS: readonly Instrument[] = [
  instrument({
    name: "inline meter",
    kind: "energy meter",
    gainSd: 0.01,
    note: "between pack and controller",
  }),
  instrument({ name: "desk logger", kind: "logger", gainSd: 0.012 }),
  instrument({ name: "shed", kind: "charger", amps: 3, eta: 0.87, etaSd: 0.02 }),
];

export const BENCHES: readonly { readonly bike: string; readonly pack: string; readonly bench: Bench }[] = [
  {
    bike: "hauler",
    pack: "main",
    bench: benchSchema.parse({
      on: "2026-02-20",
      fromFull: true,
      startVolts: 54.3,
      hours: 5.6,
      wh: 633,
      sdWh: 9,
      startTempC: 25,
      highestTempC: 33,
      instrument: "bench tester",
      by: "Idris",
      shownWh: 633,
      shownPercent: 94,
      endVolts: 39.1,
      startCharge: 100,
      endCharge: 1,
      customer: "Maren, of the market ferry",
      serial: "OH-2291-07",
      software: "1.14",
      madeOn: "week 9 of 2024",
      cyclesShown: 190.6,
      errors: "E07 charger unplugged under load, once",
    }),
  },
];

export const COURSES = {
  levee: course({
    name: "Levee loop",
    shape: "loop",
    legs: [
      { name: "harbour front", distanceM: mi(1.4), ground: "brick", gainM: 6, lossM: 4 },
      { name: "levee", distanceM: mi(4.1), ground: "fine gravel", gainM: 9, lossM: 9 },
      { name: "tramway home", distanceM: mi(2.3), ground: "asphalt", gainM: 12, lossM: 14 },
    ],
    laps: 3,
    places: [
      { name: "sluice house", atM: mi(3.2), kind: "pick-up point" },
      { name: "tap at the old halt", atM: mi(6.1), kind: "water" },
    ],
  }),
  tower: course({
    name: "Water-tower hill",
    shape: "out and back",
    legs: [
      { name: "tramway", distanceM: mi(3.5), ground: "asphalt", gainM: 18, lossM: 6 },
      { name: "the hill", distanceM: mi(1.1), ground: "asphalt", gainM: 74, lossM: 0 },
      { name: "ridge track", distanceM: mi(2.4), ground: "loose gravel", gainM: 31, lossM: 27 },
    ],
    places: [{ name: "foot of the hill", atM: mi(3.5), kind: "pick-up point" }],
  }),
  marsh: course({
    name: "To the far marsh",
    shape: "out and back",
    legs: [
      { name: "harbour front", distanceM: mi(1.4), ground: "brick", gainM: 6, lossM: 4 },
      { name: "levee, far end", distanceM: mi(11.6), ground: "fine gravel", gainM: 26, lossM: 24 },
    ],
    places: [
      { name: "sluice house", atM: mi(3.2), kind: "pick-up point" },
      { name: "ferry steps", atM: mi(8.8), kind: "can stop" },
    ],
  }),
} as const;

export interface DeskPlan {
  readonly bike: string;
  readonly pack: string;
  readonly setUp: string | null;
  readonly rider: string | null;
  readonly course: keyof typeof COURSES;
  /** Days from the day the desk is set. */
  readonly inDays: number;
  readonly plan: Omit<Plan, "day">;
}

const plan = (
  template: string,
  method: Partial<z.input<typeof methodSchema>>,
  value: Omit<z.input<typeof planSchema>, "method" | "day">,
): Omit<Plan, "day"> => {
  const { day: _, ...rest } = planSchema.parse({
    ...value,
    day: "2026-01-01",
    method: { ...templateNamed(template)!.method, ...method },
  });
  return rest;
};

export const PLANS: readonly DeskPlan[] = [
  {
    bike: "hauler",
    pack: "main",
    setUp: "child",
    rider: "maren",
    course: "marsh",
    inDays: 2,
    plan: plan(
      "Part charge",
      {},
      {
        title: "How far with the child on",
        question: "claim",
        level: "mid",
        startsAt: "10:00",
        airTempC: 8,
        windMps: 9 * MPS_PER_MPH,
        chargerA: 3,
      },
    ),
  },
  {
    bike: "brindlow",
    pack: "main",
    setUp: "slick",
    rider: "maren",
    course: "levee",
    inDays: 4,
    plan: plan(
      "Sections A B B A",
      { compare: { a: "slick tyres", b: "winter tyres", pairs: 2, wantedWhPerM: 1 / METRES_PER_MILE } },
      { title: "What winter tyres cost", question: "change", level: "town", bpm: 120, airTempC: 6 },
    ),
  },
  {
    bike: "vessock",
    pack: "main",
    setUp: "firm",
    rider: "idris",
    course: "tower",
    inDays: 9,
    plan: plan(
      "Throttle run-down",
      {},
      {
        title: "Throttle only, to the end",
        question: "throttle",
        startsAt: "11:30",
        airTempC: 2,
        chargedBy: "21:00",
      },
    ),
  },
];
