import { v7 as uuidv7 } from "uuid";

/** Ids of one of everything on a desk. */
export interface Ids {
  readonly bike: string;
  readonly pack: string;
  readonly setUp: string;
  readonly rider: string;
  readonly instrument: string;
  readonly course: string;
  readonly plan: string;
  readonly test: string;
  readonly ride: string;
  readonly sweep: string;
  readonly climb: string;
  readonly sheet: string;
  readonly rehearsal: string | null;
}

/** A door of the application: where it is, and what a page of its own would send there. */
export interface Door {
  readonly path: string;
  readonly fields: Readonly<Record<string, string>>;
  /** A field that holds a file. */
  readonly file?: string;
}

const BIKE =
  "name what massKg massWithoutPackKg motor motorW sensor levels throttle assistToMps percentStep counts bars barsAre meterStepV powerShown wheelCircumferenceM brakes comfort price claims reported version pencil";
const PACK =
  "name chemistry labelWh ampHours seriesCells measuredWh measuredSdWh measuredOn firstUsedOn cycles massKg priceMinor storage lastFullOn highestTempC resistanceOhm ocv version";
const SET_UP =
  "name since tyre tyreClass tyreWidthM pressurePa maxPressurePa posture lightsOn carriedKg changed version";
const TEST =
  "title school drive day airTempC packTempC wind course firstLevel firstGround windMps windFromDeg effort riderW bpm stops altitudeM zone packId secondPackId setUpId riderId version newId";
const PLAN =
  "packId setUpId riderId courseId title question day startsAt zone laps days level speedMps effort riderW bpm airTempC packTempC windMps windFromDeg stopsPerMi reserve startPercent chargeFromPercent chargerA chargedBy dark method.name method.school method.drive method.until method.share method.everyM method.atQuarters method.taken method.ends method.compare.a method.compare.b method.compare.pairs method.compare.wantedWhPerM method.hold method.ready method.bring method.note version";
const ENTRY =
  "what distanceM displayM time percent bars bar packVolts underLoad restMin amps speedMps rangeGuessM level ground note chargerDone counterWh counterAh meter wallWh charger toFull entryId supersedes judge intent alongM nextRideId import";
const CLIMB =
  "hill day lengthM gainM timeS drive level ground entrySpeedMps energyWh startPercent endPercent effort airTempC note bike pack setUp rider version";
const COURSE =
  "name shape laps fetchedBy note latitude longitude altitudeM profile legs.0.name legs.0.distanceM legs.0.ground legs.0.level legs.0.gainM legs.0.lossM legs.9999999.name places.0.name places.0.atM places.0.kind version";

const GOOD: Readonly<Record<string, string>> = {
  name: "hostile",
  title: "hostile",
  "method.name": "hostile",
  levels: "low, high",
  labelWh: "500",
  chemistry: "NMC",
  school: "part charge",
  drive: "pedal",
  day: "2026-10-18",
  firstGround: "asphalt",
  zone: "+01:00",
  question: "claim",
  what: "checkIn",
  distanceM: "12.4 mi",
  percent: "60",
  hill: "tower",
  lengthM: "1 km",
  gainM: "47 m",
  timeS: "184 s",
  energyWh: "31 Wh",
  shape: "loop",
  "legs.0.distanceM": "2 mi",
  speedMps: "14 mph",
  carriedKg: "90 kg",
  until: "the course is ridden",
  taken: "percent",
  ends: "byChoice",
  everyM: "5 mi",
};

const fill = (names: string, more: Readonly<Record<string, string>> = {}) =>
  Object.fromEntries(names.split(" ").map((name) => [name, more[name] ?? GOOD[name] ?? ""]));

/** Every form of the application. */
export function formDoors(ids: Ids): readonly Door[] {
  const links = { packId: ids.pack, setUpId: ids.setUp, riderId: ids.rider, courseId: ids.course };
  return [
    { path: "/bikes/new", fields: fill(BIKE) },
    { path: `/bikes/${ids.bike}/edit`, fields: fill(BIKE) },
    { path: `/bikes/${ids.bike}/gauge`, fields: { intent: "use" } },
    { path: `/bikes/${ids.bike}/packs/new`, fields: fill(PACK) },
    { path: `/bikes/${ids.bike}/packs/${ids.pack}`, fields: fill(PACK) },
    {
      path: `/bikes/${ids.bike}/packs/${ids.pack}/bench/new`,
      fields: fill("on fromFull startVolts hours wh sdWh startTempC highestTempC instrument by note version"),
    },
    { path: `/bikes/${ids.bike}/set-ups/new`, fields: fill(SET_UP) },
    { path: `/bikes/${ids.bike}/set-ups/${ids.setUp}`, fields: fill(SET_UP) },
    { path: "/bikes/riders/new", fields: fill("name massKg lowBpm lowW highBpm highW note") },
    {
      path: `/bikes/riders/${ids.rider}`,
      fields: fill("name massKg lowBpm lowW highBpm highW note version"),
    },
    { path: "/bikes/instruments/new", fields: fill("name kind gainSd eta etaSd amps note") },
    {
      path: `/bikes/instruments/${ids.instrument}`,
      fields: fill("name kind gainSd eta etaSd amps note version"),
    },
    {
      path: "/plan/new",
      fields: { bike: ids.bike, question: "claim", method: "Part charge", course: ids.course, own: "" },
    },
    { path: `/plan/${ids.plan}`, fields: fill(PLAN, links) },
    { path: `/plan/${ids.plan}`, fields: { intent: "tick", line: "Brakes checked", done: "on" } },
    { path: `/plan/${ids.plan}`, fields: { intent: "rehearse", startId: uuidv7() } },
    { path: "/plan/courses/new", fields: fill(COURSE) },
    { path: `/plan/courses/${ids.course}`, fields: fill(COURSE) },
    { path: `/strip/new?bike=${ids.bike}`, fields: fill(TEST, links) },
    { path: `/strip/${ids.test}/conditions`, fields: fill(TEST, links) },
    { path: `/strip/${ids.test}`, fields: { ...fill(ENTRY), rideId: ids.ride } },
    { path: `/strip/${ids.test}`, fields: { rideId: ids.ride, judge: `strike/${uuidv7()}/percent` } },
    { path: `/strip/${ids.test}`, fields: { rideId: ids.ride, intent: "handMark", alongM: "5000" } },
    { path: `/strip/${ids.test}`, fields: { rideId: ids.ride, intent: "countLogger", import: uuidv7() } },
    {
      path: `/strip/${ids.test}/import`,
      fields: {
        rideId: ids.ride,
        text: "miles,battery %\n1,90\n2,80\n",
        fileName: "a.csv",
        intent: "preview",
        batchId: uuidv7(),
        column0: "distance",
        unit0: "mi",
      },
    },
    { path: `/strip/${ids.test}/import`, fields: { rideId: ids.ride }, file: "file" },
    {
      path: `/strip/${ids.test}/narration`,
      fields: {
        rideId: ids.ride,
        lines: JSON.stringify([
          {
            key: "62/six miles",
            at: null,
            body: { kind: "checkIn", distanceM: 9656 },
            source: { kind: "narration", filmS: 62, words: "six miles" },
          },
        ]),
      },
    },
    {
      path: `/strip/${ids.test}/file`,
      fields: {
        rideId: ids.ride,
        intent: "look",
        format: "logger",
        columns: JSON.stringify(["time", "volts", "amps"]),
        drawnIsMinus: "no",
        logger: "box",
        offset: "-1:00:04",
      },
      file: "file",
    },
    {
      path: `/strip/${ids.test}/clocks`,
      fields: { rideId: ids.ride, intent: "clock", kind: "track", device: uuidv7(), offset: "-12" },
    },
    {
      path: `/strip/${ids.test}/clocks`,
      fields: { rideId: ids.ride, intent: "paint", from: "2", to: "4", ground: "grass", batchId: uuidv7() },
    },
    { path: `/strip/${ids.test}/photographs`, fields: { ...fill(ENTRY), rideId: ids.ride } },
    { path: `/strip/${ids.test}/photographs`, fields: { rideId: ids.ride, takeOff: uuidv7() } },
    {
      path: `/ride/${ids.test}/photograph`,
      fields: { id: uuidv7(), rideId: ids.ride, entryId: uuidv7(), takenAt: "2026-10-18T09:30:00Z" },
      file: "photograph",
    },
    { path: `/strip/${ids.test}/import`, fields: { rideId: ids.ride, logger: "box" }, file: "file" },
    {
      path: "/compare/references",
      fields: fill(
        "name carriedKg speedMps ground headwindMps gainMPerMi stopsPerMi tempC altitudeM lightsOn riderW",
      ),
    },
    { path: `/compare/bridge/${ids.test}?under=House`, fields: { publish: "on" } },
    {
      path: "/compare/sweeps/new",
      fields: {
        bike: ids.bike,
        pack: ids.pack,
        setUp: ids.setUp,
        rider: ids.rider,
        title: "hostile",
        day: "2026-10-18",
        levels: "low",
        grounds: "asphalt",
      },
    },
    {
      path: `/compare/sweeps/${ids.sweep}`,
      fields: {
        title: "hostile",
        day: "2026-10-18",
        effort: "easy",
        airTempC: "",
        version: "",
        "rows.0.level": "low",
        "rows.0.ground": "asphalt",
        "rows.0.direction": "there",
        "rows.0.speed": "14",
        "rows.0.amps": "6-7",
        "rows.0.volts": "48",
      },
    },
    { path: "/compare/climbs/new", fields: fill(CLIMB, { bike: ids.bike, pack: ids.pack }) },
    { path: `/compare/climbs/${ids.climb}`, fields: fill(CLIMB, { bike: ids.bike, pack: ids.pack }) },
    { path: "/act", fields: { kind: "rider", id: ids.rider, intent: "restore", to: "/bikes" } },
    { path: "/act", fields: { kind: "test", id: ids.test, intent: "rename", name: "hostile", to: "/strip" } },
    { path: "/act", fields: { kind: "rider", id: ids.rider, intent: "merge", into: uuidv7(), to: "/bikes" } },
    { path: "/settings/trash", fields: {} },
    { path: "/undo", fields: { change: uuidv7(), to: "/bikes" } },
    { path: "/units", fields: { system: "imperial", back: "/" } },
    { path: `/ride/${ids.test}`, fields: { intent: "addRide", nextRideId: uuidv7() } },
    { path: "/sheet", fields: { kind: "test", of: ids.test } },
    { path: "/sheet", fields: { kind: "comparison", of: "" } },
    {
      path: `/sheet/${ids.sheet}`,
      fields: {
        ...{
          title: "hostile",
          words: "",
          address: "",
          under: "House",
          paper: "A4",
          a: ids.test,
          b: uuidv7(),
        },
        ...{ sections: "1", on: "headline", sorted: "1", [`sort.${uuidv7()}`]: "noise", version: "" },
      },
    },
    { path: `/sheet/${ids.sheet}`, fields: { intent: "publish", editionId: uuidv7() } },
    { path: `/sheet/${ids.sheet}`, fields: { intent: "withdraw", number: "1" } },
    { path: "/sheet/picture?width=300", fields: { svg: "<svg/>" } },
    { path: "/settings", fields: { intent: "takeIn" }, file: "zip" },
    { path: "/settings", fields: { intent: "restore", backup: "x", where: "beside", name: "old" } },
  ];
}

/** Addresses that are asked for, with what their query may hold. */
export function pageDoors(ids: Ids): readonly Door[] {
  return [
    { path: "/", fields: {} },
    { path: "/bikes", fields: { archived: "" } },
    { path: `/bikes/${ids.bike}`, fields: { changed: uuidv7() } },
    { path: "/plan", fields: { archived: "" } },
    { path: "/plan/new", fields: { question: "claim", bike: ids.bike, course: ids.course } },
    { path: `/plan/${ids.plan}`, fields: {} },
    { path: `/plan/${ids.plan}/calendar.ics`, fields: {} },
    { path: `/plan/${ids.plan}/pocket`, fields: {} },
    { path: "/ride", fields: {} },
    { path: `/ride/${ids.test}`, fields: { ride: ids.ride } },
    { path: `/ride/${ids.test}/display`, fields: { from: "0", clock: "1", fault: "none", stands: "" } },
    { path: "/strip", fields: { page: "1", bike: ids.bike } },
    { path: "/strip/new", fields: { bike: ids.bike } },
    { path: `/strip/${ids.test}`, fields: { tab: "doubt", ride: ids.ride, correct: uuidv7() } },
    { path: `/strip/${ids.test}/record`, fields: {} },
    { path: "/sheet", fields: {} },
    { path: `/sheet/${ids.sheet}`, fields: { changed: uuidv7() } },
    { path: `/sheet/${ids.sheet}/pdf`, fields: {} },
    { path: `/sheet/${ids.sheet}/html`, fields: {} },
    { path: `/sheet/${ids.sheet}/editions/1`, fields: {} },
    { path: `/sheet/${ids.sheet}/editions/1/md`, fields: {} },
    { path: "/sheet/cards/headline/svg", fields: { test: ids.test, size: "tall", theme: "dusk" } },
    { path: "/sheet/cards/pair", fields: { a: ids.test, b: ids.test, under: "House", hill: "tower" } },
    {
      path: "/compare",
      fields: {
        under: "House",
        show: "whPerMi",
        level: "whole ride",
        ground: "",
        bike: ids.bike,
        by: "test",
        pack: "500",
        test: ids.test,
        rows: "all",
        drive: "pedal",
      },
    },
    { path: "/compare/claims", fields: { under: "House", tariff: "30" } },
    { path: "/compare/climbs", fields: {} },
    { path: "/compare/sweeps", fields: {} },
    { path: `/compare/sweeps/${ids.sweep}`, fields: {} },
    { path: `/compare/bikes/${ids.bike}`, fields: { under: "House" } },
    { path: `/compare/bridge/${ids.test}`, fields: { under: "House" } },
    { path: "/compare/pair", fields: { a: ids.test, b: ids.test, runs: ids.test, under: "House" } },
    { path: "/compare/pair/tests", fields: { a: ids.test, b: ids.test } },
    { path: "/settings", fields: {} },
    { path: "/settings/backups/desk.backup", fields: {} },
  ];
}
