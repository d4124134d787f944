import { there, formatQuantity, type System } from "#core/base";
import { yearsBetween } from "#core/battery";
import type { TestRecord } from "#core/records";

const differs = (a: number | undefined, b: number | undefined, by: number) =>
  a !== undefined && b !== undefined && Math.abs(a - b) > by;

/** How old a pack was on the day of its test, years; undefined where nobody noted its first use. */
const yearsOf = ({ pack, test }: TestRecord) =>
  pack.firstUsedOn === undefined ? undefined : yearsBetween(pack.firstUsedOn, test.day);

/** What rider and load weigh; undefined where the rider was not weighed. */
const loadOf = ({ rider, setUp }: TestRecord) =>
  rider?.massKg === undefined ? undefined : rider.massKg + (setUp?.carriedKg ?? 0);

/** What of a log measures energy, by its name where it has one. */
const MEASURES = ["percent", "bars", "packVolts", "counterWh", "counterAh", "amps"] as const;
const CALLED: Readonly<Record<(typeof MEASURES)[number], string>> = {
  percent: "percent",
  bars: "bars",
  packVolts: "volts",
  counterWh: "counted Wh",
  counterAh: "counted Ah",
  amps: "amps",
};

/** What measured on a test: the kinds of its readings, its meters and its loggers. */
function metersOf({ rides }: TestRecord): string {
  const bodies = rides.flatMap(({ entries }) =>
    entries.map(({ body }) => body as Readonly<Record<string, unknown>>),
  );
  const kinds = MEASURES.filter((key) => bodies.some((body) => body[key] !== undefined)).map(
    (key) => CALLED[key],
  );
  const meters = bodies.flatMap(({ meter }) => (typeof meter === "string" && meter !== "" ? [meter] : []));
  const loggers = rides.flatMap(({ telemetry }) => (telemetry ? [telemetry.logger || "a logger"] : []));
  return [...kinds, ...new Set([...meters, ...loggers])].join(", ") || "nothing";
}

/** What else differed between two tests, in sentences: each may explain part of a difference. */
export function confounders(a: TestRecord, b: TestRecord, system: System): readonly string[] {
  const found: string[] = [];
  const say = (differ: boolean, sentence: () => string) => {
    if (differ) found.push(sentence());
  };
  const temp = (c: number) => formatQuantity(c, "temperature", system);
  const mass = (kg: number) => formatQuantity(kg, "mass", system, 0);
  const speed = (mps: number) => formatQuantity(mps, "speed", system, 1);
  const full = (record: TestRecord) =>
    record.rides[0]?.entries.some(({ body }) => body.kind === "start" && body.chargerDone === true) ?? false;
  const charge = (record: TestRecord) =>
    record.rides[0]?.entries.find(({ body }) => body.kind === "start")?.body;
  const percentOf = (record: TestRecord) => {
    const body = charge(record);
    return body && "percent" in body ? body.percent : undefined;
  };
  const effortOf = ({ test }: TestRecord) =>
    test.riderW !== undefined
      ? `${test.riderW} W`
      : test.bpm !== undefined
        ? `${test.bpm} beats a minute`
        : (test.effort ?? "not noted");
  const words = (one: string | undefined, other: string | undefined) =>
    `${one || "not noted"} and ${other || "not noted"}`;
  const loadText = (kg: number | undefined) => (kg === undefined ? "not weighed" : mass(kg));
  say(
    a.test.drive !== b.test.drive,
    () => `One was ridden on ${a.test.drive}, the other on ${b.test.drive}.`,
  );
  say(full(a) !== full(b), () => "Only one started from a full charge.");
  say(
    full(a) === full(b) && differs(percentOf(a), percentOf(b), 10),
    () => `The charge at the start differs: ${percentOf(a)} % and ${percentOf(b)} %.`,
  );
  say(
    a.test.drive === "pedal" && b.test.drive === "pedal" && effortOf(a) !== effortOf(b),
    () => `What the rider put in: ${effortOf(a)}, and ${effortOf(b)}.`,
  );
  say(
    differs(a.bike.massKg, b.bike.massKg, 0.5),
    () => `The bikes weigh ${mass(there(a.bike.massKg))} and ${mass(there(b.bike.massKg))}.`,
  );
  say(
    (a.bike.massKg === undefined) !== (b.bike.massKg === undefined),
    () => `Only one bike was weighed: ${loadText(a.bike.massKg)} and ${loadText(b.bike.massKg)}.`,
  );
  say(a.bike.motor !== b.bike.motor, () => `The motors: ${a.bike.motor} and ${b.bike.motor}.`);
  say(a.bike.sensor !== b.bike.sensor, () => `The pedal sensors: ${a.bike.sensor} and ${b.bike.sensor}.`);
  say(
    differs(a.bike.assistToMps, b.bike.assistToMps, 0.2),
    () => `Assist stops at ${speed(there(a.bike.assistToMps))} and ${speed(there(b.bike.assistToMps))}.`,
  );
  say(
    a.setUp?.tyreClass !== b.setUp?.tyreClass,
    () => `The tyres: ${words(a.setUp?.tyreClass, b.setUp?.tyreClass)}.`,
  );
  say(
    a.setUp?.posture !== b.setUp?.posture,
    () => `The postures: ${words(a.setUp?.posture, b.setUp?.posture)}.`,
  );
  say(metersOf(a) !== metersOf(b), () => `What measured: ${metersOf(a)}; and ${metersOf(b)}.`);
  say(a.pack.name !== b.pack.name, () => `Different packs: ${a.pack.name} and ${b.pack.name}.`);
  say(
    differs(yearsOf(a), yearsOf(b), 1),
    () =>
      `The packs' ages differ: ${there(yearsOf(a)).toFixed(1)} and ${there(yearsOf(b)).toFixed(1)} years.`,
  );
  say(
    (a.setUp?.lightsOn ?? false) !== (b.setUp?.lightsOn ?? false),
    () => "Lights were on in one and off in the other.",
  );
  say(
    a.rider?.name !== b.rider?.name,
    () => `Different riders: ${a.rider?.name ?? "not noted"} and ${b.rider?.name ?? "not noted"}.`,
  );
  say(
    differs(loadOf(a), loadOf(b), 3),
    () => `Rider and load differ: ${loadText(loadOf(a))} and ${loadText(loadOf(b))}.`,
  );
  say(
    (loadOf(a) === undefined) !== (loadOf(b) === undefined),
    () => `Only one rider was weighed: ${loadText(loadOf(a))} and ${loadText(loadOf(b))} with the load.`,
  );
  say(
    differs(a.test.airTempC, b.test.airTempC, 3),
    () => `Air temperature differs: ${temp(there(a.test.airTempC))} and ${temp(there(b.test.airTempC))}.`,
  );
  say(
    differs(a.setUp?.pressurePa, b.setUp?.pressurePa, 20_000),
    () =>
      `Tyre pressure differs: ${formatQuantity(there(there(a.setUp).pressurePa), "pressure", system)} and ${formatQuantity(there(there(b.setUp).pressurePa), "pressure", system)}.`,
  );
  say(
    a.test.wind !== b.test.wind,
    () => `Wind: ${a.test.wind || "not noted"}, and ${b.test.wind || "not noted"}.`,
  );
  say(
    a.test.course !== b.test.course,
    () => `Different courses: ${a.test.course || "not noted"}, and ${b.test.course || "not noted"}.`,
  );
  say(
    a.test.firstLevel !== b.test.firstLevel,
    () => `Levels differ: ${a.test.firstLevel || "not noted"} and ${b.test.firstLevel || "not noted"}.`,
  );
  return found;
}
