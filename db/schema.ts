import { sql } from "drizzle-orm";
import {
  bigint,
  boolean,
  check,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgSequence,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
  type PgColumn,
} from "drizzle-orm/pg-core";
import type { Course } from "#core/route";
import type { Entry, EntryBody } from "#core/ride/log";
import type { OcvTable } from "#core/battery";
import type { Method, Plan } from "#core/planning";
import type { Problem, Estimate } from "#core/base";
import { choicesOf, type RecordFields } from "#core/fields";
import {
  BIKE_FIELDS,
  INSTRUMENT_FIELDS,
  PACK_FIELDS,
  SET_UP_FIELDS,
  TEST_FIELDS,
  type Bench,
  type Bike,
  type ClimbRecord,
  type Claim,
  type PackRecord,
  type ReferenceRecord,
  type Reported,
  type Sweep,
  type TrackSums,
} from "#core/records";
import type { TestDigest, TestResults } from "#core/analysis";
import type { Reference } from "#core/bike";
import type { Rehearsal } from "#core/simulator";
import type { EditionBody, SheetOptions } from "#core/telling";

/** Tables of the test desk. Ids are UUIDv7; weights, lengths and pressures in SI; `pencil` names fields still assumed. */
const id = () => uuid("id").primaryKey();
const pencil = () =>
  text("pencil")
    .array()
    .notNull()
    .default(sql`'{}'::text[]`);
/** Set when a person put it away: kept, shown no more unless asked for. */
const archivedAt = () => timestamp("archived_at", { withTimezone: true });
/** Set when a person deleted it: in the trash until it is emptied. What was deleted together has the same time. */
const deletedAt = () => timestamp("deleted_at", { withTimezone: true });
/** Counts the changes of a row: a save names the version it saw, and a stale one is not written. */
const version = () => integer("version").notNull().default(1);
const bytea = customType<{ data: Uint8Array }>({ dataType: () => "bytea" });
const updatedAt = () => timestamp("updated_at", { withTimezone: true }).notNull().defaultNow();
/** The desk of whoever has only one, made with the tables. */
export const FIRST_DESK = "00000000-0000-7000-8000-000000000001";
/** The desk of invented bikes, made with the tables and empty until somebody looks around it. */
export const DEMO_DESK = "00000000-0000-7000-8000-000000000002";
/** Whose it is: the desk its connection works for, or the first. The database lets no connection see another desk's rows. */
export const deskId = () =>
  uuid("desk_id")
    .notNull()
    .default(sql.raw(`coalesce(desk_now(), '${FIRST_DESK}'::uuid)`))
    .references(() => desk.id);
/** Columns that hold one of a few values hold no other: those that the record's fields declare. */
const onlyChoices = (table: string, columns: Readonly<Record<string, unknown>>, fields: RecordFields) =>
  Object.entries(fields).flatMap(([key, field]) => {
    const [column, choices] = [columns[key] as PgColumn | undefined, choicesOf(field)];
    if (!column || choices.length === 0) return [];
    const list = choices.map((choice) => `'${choice.replaceAll("'", "''")}'`).join(", ");
    return [check(`${table}_${column.name}`, sql`${column} in (${sql.raw(list)})`)];
  });

/** Desks: each has bikes, riders, tests and all else of its own. */
export const desk = pgTable("desk", {
  id: id(),
  name: text("name").notNull().default(""),
  madeAt: timestamp("made_at", { withTimezone: true }).notNull().defaultNow(),
});

export const bike = pgTable(
  "bike",
  {
    id: id(),
    deskId: deskId(),
    name: text("name").notNull(),
    what: text("what").notNull().default(""),
    massKg: doublePrecision("mass_kg"),
    massWithoutPackKg: doublePrecision("mass_without_pack_kg"),
    motor: text("motor").notNull().default("hub"),
    motorW: doublePrecision("motor_w"),
    sensor: text("sensor").notNull().default("not noted"),
    levels: text("levels").array().notNull(),
    levelShares: doublePrecision("level_shares")
      .array()
      .notNull()
      .default(sql`'{}'::double precision[]`),
    assistToMps: doublePrecision("assist_to_mps"),
    throttle: boolean("throttle").notNull().default(false),
    percentStep: doublePrecision("percent_step").notNull().default(1),
    counts: text("counts").notNull().default("charge"),
    bars: integer("bars").notNull().default(0),
    barsAre: text("bars_are").notNull().default("bars"),
    meterStepV: doublePrecision("meter_step_v").notNull().default(0.1),
    wheelCircumferenceM: doublePrecision("wheel_circumference_m"),
    powerShown: text("power_shown").notNull().default("none"),
    brakes: text("brakes").notNull().default(""),
    comfort: text("comfort").notNull().default(""),
    priceMinor: bigint("price_minor", { mode: "number" }),
    currency: text("currency").notNull().default("EUR"),
    claims: jsonb("claims")
      .$type<readonly Claim[]>()
      .notNull()
      .default(sql`'[]'::jsonb`),
    reported: jsonb("reported")
      .$type<readonly Reported[]>()
      .notNull()
      .default(sql`'[]'::jsonb`),
    learned: jsonb("learned")
      .$type<Bike["learned"]>()
      .notNull()
      .default(sql`'[]'::jsonb`),
    pencil: pencil(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [index("bike_by_desk").on(table.deskId), ...onlyChoices("bike", table, BIKE_FIELDS)],
);

export const pack = pgTable(
  "pack",
  {
    id: id(),
    deskId: deskId(),
    bikeId: uuid("bike_id")
      .notNull()
      .references(() => bike.id),
    name: text("name").notNull(),
    chemistry: text("chemistry").notNull().default("NMC"),
    labelWh: doublePrecision("label_wh"),
    ampHours: doublePrecision("amp_hours"),
    seriesCells: integer("series_cells"),
    measuredWh: doublePrecision("measured_wh"),
    measuredSdWh: doublePrecision("measured_sd_wh"),
    measuredOn: date("measured_on", { mode: "string" }),
    /** Earlier measurements, by day. */
    measuredBefore: jsonb("measured_before")
      .$type<PackRecord["measuredBefore"]>()
      .notNull()
      .default(sql`'[]'::jsonb`),
    learned: jsonb("learned")
      .$type<PackRecord["learned"]>()
      .notNull()
      .default(sql`'[]'::jsonb`),
    resistanceOhm: doublePrecision("resistance_ohm"),
    /** Own rest-volts curve per cell: charge 0..1 and volts, as long. */
    ocv: jsonb("ocv").$type<OcvTable>(),
    firstUsedOn: date("first_used_on", { mode: "string" }),
    cycles: doublePrecision("cycles"),
    massKg: doublePrecision("mass_kg"),
    priceMinor: bigint("price_minor", { mode: "number" }),
    priceMoreMinor: bigint("price_more_minor", { mode: "number" }),
    storage: text("storage").notNull().default(""),
    lastFullOn: date("last_full_on", { mode: "string" }),
    highestTempC: doublePrecision("highest_temp_c"),
    pencil: pencil(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [
    index("pack_by_desk").on(table.deskId),
    index("pack_by_bike").on(table.bikeId),
    ...onlyChoices("pack", table, PACK_FIELDS),
  ],
);

export const rider = pgTable(
  "rider",
  {
    id: id(),
    deskId: deskId(),
    name: text("name").notNull(),
    massKg: doublePrecision("mass_kg"),
    lowBpm: doublePrecision("low_bpm"),
    lowW: doublePrecision("low_w"),
    highBpm: doublePrecision("high_bpm"),
    highW: doublePrecision("high_w"),
    note: text("note").notNull().default(""),
    pencil: pencil(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [index("rider_by_desk").on(table.deskId)],
);

/** Meters, loggers and chargers of the desk. */
export const instrument = pgTable(
  "instrument",
  {
    id: id(),
    deskId: deskId(),
    name: text("name").notNull(),
    /** Names it had before: logs that were written then go on meaning it. */
    formerNames: text("former_names")
      .array()
      .notNull()
      .default(sql`'{}'::text[]`),
    kind: text("kind").notNull(),
    gainSd: doublePrecision("gain_sd"),
    eta: doublePrecision("eta"),
    etaSd: doublePrecision("eta_sd"),
    amps: doublePrecision("amps"),
    note: text("note").notNull().default(""),
    pencil: pencil(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [
    index("instrument_by_desk").on(table.deskId),
    ...onlyChoices("instrument", table, INSTRUMENT_FIELDS),
  ],
);

/** Bench discharges of a pack. */
export const bench = pgTable(
  "bench",
  {
    id: id(),
    deskId: deskId(),
    packId: uuid("pack_id")
      .notNull()
      .references(() => pack.id),
    body: jsonb("body").$type<Bench>().notNull(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [index("bench_by_desk").on(table.deskId), index("bench_by_pack").on(table.packId)],
);

export const setUp = pgTable(
  "set_up",
  {
    id: id(),
    deskId: deskId(),
    bikeId: uuid("bike_id")
      .notNull()
      .references(() => bike.id),
    name: text("name").notNull(),
    since: date("since", { mode: "string" }),
    tyre: text("tyre").notNull().default(""),
    tyreClass: text("tyre_class").notNull().default("city"),
    tyreWidthM: doublePrecision("tyre_width_m"),
    pressurePa: doublePrecision("pressure_pa"),
    maxPressurePa: doublePrecision("max_pressure_pa"),
    posture: text("posture").notNull().default("upright"),
    lightsOn: boolean("lights_on").notNull().default(false),
    carriedKg: doublePrecision("carried_kg").notNull().default(0),
    changed: text("changed").notNull().default(""),
    pencil: pencil(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [
    index("set_up_by_desk").on(table.deskId),
    index("set_up_by_bike").on(table.bikeId),
    ...onlyChoices("set_up", table, SET_UP_FIELDS),
  ],
);

/** Ways to ride that are kept. */
export const course = pgTable(
  "course",
  {
    id: id(),
    deskId: deskId(),
    body: jsonb("body").$type<Course>().notNull(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [index("course_by_desk").on(table.deskId)],
);

/** A person's own templates of method. */
export const method = pgTable(
  "method",
  {
    id: id(),
    deskId: deskId(),
    body: jsonb("body").$type<Method>().notNull(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [index("method_by_desk").on(table.deskId)],
);

/** A test still to be ridden. */
export const plan = pgTable(
  "plan",
  {
    id: id(),
    deskId: deskId(),
    bikeId: uuid("bike_id")
      .notNull()
      .references(() => bike.id),
    packId: uuid("pack_id")
      .notNull()
      .references(() => pack.id),
    setUpId: uuid("set_up_id").references(() => setUp.id),
    riderId: uuid("rider_id").references(() => rider.id),
    courseId: uuid("course_id").references(() => course.id),
    /** The test it became, once ridden. */
    testId: uuid("test_id").references(() => test.id),
    day: date("day", { mode: "string" }).notNull(),
    /** Without its ticks: they are rows of their own. */
    body: jsonb("body").$type<Omit<Plan, "ticked">>().notNull(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [
    index("plan_by_desk").on(table.deskId),
    index("plan_by_day").on(table.day),
    index("plan_by_bike").on(table.bikeId),
    index("plan_by_pack").on(table.packId),
    index("plan_by_set_up").on(table.setUpId),
    index("plan_by_rider").on(table.riderId),
    index("plan_by_course").on(table.courseId),
    index("plan_by_test").on(table.testId),
  ],
);

/** What a row was before it was changed, so that the change can be undone; null when it was not there. */
export const change = pgTable(
  "change",
  {
    id: id(),
    deskId: deskId(),
    kind: text("kind").notNull(),
    rowId: uuid("row_id").notNull(),
    before: jsonb("before").$type<Readonly<Record<string, unknown>> | null>(),
    /** Version the change made: when the row has another, it was changed again since. */
    made: integer("made").notNull().default(0),
    /** Changes that were made, and are undone, together. */
    batch: uuid("batch"),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [index("change_by_desk").on(table.deskId)],
);

/** Stamps of tests: each only once, so that no change ever brings an earlier one back. */
export const testStamp = pgSequence("test_stamp");

/** One test of one pack, alone or with a second beside it: all its rides share them. */
export const test = pgTable(
  "test",
  {
    id: id(),
    deskId: deskId(),
    bikeId: uuid("bike_id")
      .notNull()
      .references(() => bike.id),
    packId: uuid("pack_id")
      .notNull()
      .references(() => pack.id),
    secondPackId: uuid("second_pack_id").references(() => pack.id),
    setUpId: uuid("set_up_id").references(() => setUp.id),
    riderId: uuid("rider_id").references(() => rider.id),
    title: text("title").notNull(),
    school: text("school").notNull(),
    drive: text("drive").notNull(),
    day: date("day", { mode: "string" }).notNull(),
    airTempC: doublePrecision("air_temp_c"),
    packTempC: doublePrecision("pack_temp_c"),
    wind: text("wind").notNull().default(""),
    course: text("course").notNull().default(""),
    firstLevel: text("first_level").notNull().default(""),
    firstGround: text("first_ground").notNull().default("asphalt"),
    windMps: doublePrecision("wind_mps"),
    windFromDeg: doublePrecision("wind_from_deg"),
    effort: text("effort"),
    riderW: doublePrecision("rider_w"),
    bpm: doublePrecision("bpm"),
    stops: doublePrecision("stops"),
    altitudeM: doublePrecision("altitude_m"),
    /** What the stand-in display rides, when the test is practice; such tests count for nothing. */
    rehearsal: jsonb("rehearsal").$type<Rehearsal>(),
    pencil: pencil(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    /** Moves whenever anything the results rest on does: the test, its log and recordings, or what it links to. */
    stamp: bigint("stamp", { mode: "number" })
      .notNull()
      .default(sql`nextval('test_stamp')`),
    updatedAt: updatedAt(),
  },
  (table) => [
    index("test_by_desk").on(table.deskId),
    index("test_by_bike").on(table.bikeId),
    index("test_by_day").on(table.day),
    index("test_by_pack").on(table.packId),
    index("test_by_second_pack").on(table.secondPackId),
    index("test_by_set_up").on(table.setUpId),
    index("test_by_rider").on(table.riderId),
    ...onlyChoices("test", table, TEST_FIELDS),
  ],
);

export const ride = pgTable(
  "ride",
  {
    id: id(),
    deskId: deskId(),
    testId: uuid("test_id")
      .notNull()
      .references(() => test.id),
    /** Order within the test, from 0. */
    position: integer("position").notNull(),
    name: text("name").notNull().default(""),
    /** The zone of the ride's clock by its name, or its offset from UTC, "+01:00". */
    zone: text("zone").notNull().default("+00:00"),
  },
  (table) => [
    index("ride_by_desk").on(table.deskId),
    uniqueIndex("ride_in_order").on(table.testId, table.position),
  ],
);

/** The append-only ride log. No row is ever updated, or deleted but with its test; a correction is a row that supersedes another. */
export const entry = pgTable(
  "entry",
  {
    id: id(),
    deskId: deskId(),
    rideId: uuid("ride_id")
      .notNull()
      .references(() => ride.id),
    seq: bigint("seq", { mode: "number" }).notNull(),
    at: timestamp("at", { withTimezone: true, mode: "string" }),
    kind: text("kind").notNull(),
    body: jsonb("body").$type<EntryBody>().notNull(),
    supersedes: uuid("supersedes"),
    /** Seconds to add to `at`, where the device's clock was checked. */
    clockOffsetS: doublePrecision("clock_offset_s"),
    /** Where it was taken from, when nobody typed it. */
    source: jsonb("source").$type<NonNullable<Entry["source"]>>(),
    /** The browser that noted it. */
    device: text("device"),
    receivedAt: timestamp("received_at", { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [
    index("entry_by_desk").on(table.deskId),
    index("entry_by_ride").on(table.rideId, table.seq),
    check("entry_kind", sql`${table.kind} = ${table.body}->>'kind'`),
  ],
);

/** A recorder's track of a ride, as columns; the newest of a ride counts. */
export const track = pgTable(
  "track",
  {
    id: id(),
    deskId: deskId(),
    rideId: uuid("ride_id")
      .notNull()
      .references(() => ride.id),
    name: text("name").notNull().default(""),
    timeS: doublePrecision("time_s").array().notNull(),
    lat: doublePrecision("lat").array().notNull(),
    lon: doublePrecision("lon").array().notNull(),
    /** NaN where the recorder gave no height. */
    eleM: doublePrecision("ele_m").array().notNull(),
    /** What was recorded beside the place, NaN where there was none of it; null for what the recorder does not keep. */
    bpm: doublePrecision("bpm").array(),
    riderW: doublePrecision("rider_w").array(),
    cadence: doublePrecision("cadence").array(),
    tempC: doublePrecision("temp_c").array(),
    /** What the recorder says of the whole. */
    sums: jsonb("sums").$type<TrackSums>(),
    /** Hash of the file. */
    sourceHash: text("source_hash"),
    /** Seconds to add to the file's times. */
    offsetS: doublePrecision("offset_s").notNull().default(0),
    receivedAt: timestamp("received_at", { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [index("track_by_desk").on(table.deskId), index("track_by_ride").on(table.rideId)],
);

/** What one logger gave of a ride: a file brought in, or a device's samples as they came. */
export const telemetryImport = pgTable(
  "telemetry_import",
  {
    id: id(),
    deskId: deskId(),
    rideId: uuid("ride_id")
      .notNull()
      .references(() => ride.id),
    logger: text("logger").notNull(),
    /** Hash of the file; null while a device writes. */
    sourceHash: text("source_hash"),
    /** Columns it has besides time, volts and amps. */
    channels: text("channels")
      .array()
      .notNull()
      .default(sql`'{}'::text[]`),
    samples: integer("samples").notNull().default(0),
    /** Seconds that were added to the file's times. */
    offsetS: doublePrecision("offset_s").notNull().default(0),
    receivedAt: timestamp("received_at", { withTimezone: true }).notNull().defaultNow(),
    /** When a corrected file of the same logger took its place. */
    replacedAt: timestamp("replaced_at", { withTimezone: true }),
    /** Chosen to count, among the loggers of a ride. */
    counts: boolean("counts").notNull().default(false),
  },
  (table) => [
    index("telemetry_import_by_desk").on(table.deskId),
    index("telemetry_import_by_ride").on(table.rideId),
  ],
);

/** Samples of an import, 4,096 to a row, as columns. */
export const telemetryChunk = pgTable(
  "telemetry_chunk",
  {
    deskId: deskId(),
    importId: uuid("import_id")
      .notNull()
      .references(() => telemetryImport.id),
    /** Seconds since the epoch of the first sample. */
    startsS: doublePrecision("starts_s").notNull(),
    /** Seconds since the epoch. */
    timeS: doublePrecision("time_s").array().notNull(),
    volts: doublePrecision("volts").array().notNull(),
    /** Negative when energy comes back. */
    amps: doublePrecision("amps").array().notNull(),
    speedMps: doublePrecision("speed_mps").array(),
    /** Since the ride's start. */
    distanceM: doublePrecision("distance_m").array(),
  },
  (table) => [
    index("telemetry_chunk_by_desk").on(table.deskId),
    primaryKey({ columns: [table.importId, table.startsS] }),
  ],
);

/** Lines of a plan's lists that are done: a row each, so that two phones ticking at once lose nothing. */
export const planTick = pgTable(
  "plan_tick",
  {
    deskId: deskId(),
    planId: uuid("plan_id")
      .notNull()
      .references(() => plan.id),
    line: text("line").notNull(),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [
    index("plan_tick_by_desk").on(table.deskId),
    primaryKey({ columns: [table.planId, table.line] }),
  ],
);

/** Stored rows that could not be read, set aside whole by a check; nothing of them is lost. */
export const setAside = pgTable(
  "set_aside",
  {
    id: id(),
    deskId: deskId(),
    tableName: text("table_name").notNull(),
    rowId: text("row_id").notNull(),
    row: jsonb("row").notNull(),
    why: text("why").notNull(),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [index("set_aside_by_desk").on(table.deskId)],
);

/** Results by test, kept only as long as the stamp of their inputs holds: a cache, never the truth. */
export const result = pgTable(
  "result",
  {
    deskId: deskId(),
    testId: uuid("test_id")
      .primaryKey()
      .references(() => test.id),
    stamp: text("stamp").notNull(),
    /** Of everything the result was reckoned from: with the same one, a new stamp needs no new reckoning. */
    inputs: text("inputs").notNull().default(""),
    /** Null where the test cannot be reckoned; `problems` then says why. */
    body: jsonb("body").$type<TestResults>(),
    problems: jsonb("problems").$type<readonly Problem[]>(),
    /** The body without its drawings, for comparisons of many tests. */
    digest: jsonb("digest").$type<TestDigest>(),
    /** What lists show: the figure in Wh per metre, readings in question, what waits for a person, whether it has an end. */
    whPerM: doublePrecision("wh_per_m"),
    whPerMSd: doublePrecision("wh_per_m_sd"),
    questions: integer("questions").notNull().default(0),
    waits: text("waits"),
    hasEnd: boolean("has_end").notNull().default(false),
  },
  (table) => [index("result_by_desk").on(table.deskId)],
);

/** Sweeps of a bike: steady readings by level, ground and way. */
export const sweep = pgTable(
  "sweep",
  {
    id: id(),
    deskId: deskId(),
    bikeId: uuid("bike_id")
      .notNull()
      .references(() => bike.id),
    packId: uuid("pack_id")
      .notNull()
      .references(() => pack.id),
    setUpId: uuid("set_up_id").references(() => setUp.id),
    riderId: uuid("rider_id").references(() => rider.id),
    day: date("day", { mode: "string" }).notNull(),
    body: jsonb("body").$type<Sweep>().notNull(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [
    index("sweep_by_desk").on(table.deskId),
    index("sweep_by_bike").on(table.bikeId),
    index("sweep_by_pack").on(table.packId),
    index("sweep_by_set_up").on(table.setUpId),
    index("sweep_by_rider").on(table.riderId),
  ],
);

/** Runs up hills. */
export const climb = pgTable(
  "climb",
  {
    id: id(),
    deskId: deskId(),
    bikeId: uuid("bike_id")
      .notNull()
      .references(() => bike.id),
    packId: uuid("pack_id")
      .notNull()
      .references(() => pack.id),
    setUpId: uuid("set_up_id").references(() => setUp.id),
    riderId: uuid("rider_id").references(() => rider.id),
    day: date("day", { mode: "string" }).notNull(),
    body: jsonb("body").$type<ClimbRecord>().notNull(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [
    index("climb_by_desk").on(table.deskId),
    index("climb_by_bike").on(table.bikeId),
    index("climb_by_pack").on(table.packId),
    index("climb_by_set_up").on(table.setUpId),
    index("climb_by_rider").on(table.riderId),
  ],
);

/** Reference sets of the desk. A change is a new version; no version is ever changed, so that what names it keeps it. */
export const reference = pgTable(
  "reference",
  {
    id: id(),
    deskId: deskId(),
    name: text("name").notNull(),
    version: integer("version").notNull(),
    body: jsonb("body").$type<ReferenceRecord>().notNull(),
    madeAt: timestamp("made_at", { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [
    index("reference_by_desk").on(table.deskId),
    uniqueIndex("reference_version").on(table.deskId, table.name, table.version),
  ],
);

/** Figures as they were published, each with the very conditions it was brought to. */
export const published = pgTable(
  "published",
  {
    id: id(),
    deskId: deskId(),
    testId: uuid("test_id")
      .notNull()
      .references(() => test.id),
    /** Wh per metre. */
    whPerM: jsonb("wh_per_m").$type<Estimate>().notNull(),
    reference: jsonb("reference").$type<Reference>().notNull(),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [index("published_by_desk").on(table.deskId), index("published_by_test").on(table.testId)],
);

/** Pages that leave the desk: what the tester chose for each. */
export const sheet = pgTable(
  "sheet",
  {
    id: id(),
    deskId: deskId(),
    testId: uuid("test_id").references(() => test.id),
    benchId: uuid("bench_id").references(() => bench.id),
    body: jsonb("body").$type<SheetOptions>().notNull(),
    archivedAt: archivedAt(),
    deletedAt: deletedAt(),
    version: version(),
    updatedAt: updatedAt(),
  },
  (table) => [
    index("sheet_by_desk").on(table.deskId),
    index("sheet_by_test").on(table.testId),
    index("sheet_by_bench").on(table.benchId),
  ],
);

/** Pages as they were published: nothing of one is ever changed, but that it was taken back. */
export const edition = pgTable(
  "edition",
  {
    id: id(),
    deskId: deskId(),
    sheetId: uuid("sheet_id")
      .notNull()
      .references(() => sheet.id),
    /** Of its page, from 1. */
    number: integer("number").notNull(),
    at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
    body: jsonb("body").$type<EditionBody>().notNull(),
    /** Hash of everything the page was written from. */
    inputs: text("inputs").notNull(),
    withdrawnAt: timestamp("withdrawn_at", { withTimezone: true }),
  },
  (table) => [
    index("edition_by_desk").on(table.deskId),
    uniqueIndex("edition_number").on(table.sheetId, table.number),
  ],
);

/** Photographs of sheets. None is ever changed or dropped: what was published goes on showing it. */
export const photograph = pgTable(
  "photograph",
  {
    id: id(),
    deskId: deskId(),
    sheetId: uuid("sheet_id")
      .notNull()
      .references(() => sheet.id),
    caption: text("caption").notNull().default(""),
    type: text("type").notNull(),
    widthPx: integer("width_px").notNull(),
    heightPx: integer("height_px").notNull(),
    bytes: bytea("bytes").notNull(),
    addedAt: timestamp("added_at", { withTimezone: true }).notNull().defaultNow(),
    archivedAt: archivedAt(),
  },
  (table) => [
    index("photograph_by_desk").on(table.deskId),
    index("photograph_by_sheet").on(table.sheetId),
    check("photograph_type", sql`${table.type} in ('image/jpeg', 'image/png')`),
  ],
);

/** Photographs of a log's entries, such as of a display: none is ever changed, and one that was taken off stays. */
export const entryPhotograph = pgTable(
  "entry_photograph",
  {
    id: id(),
    deskId: deskId(),
    rideId: uuid("ride_id")
      .notNull()
      .references(() => ride.id),
    /** The first of its corrections; it may come after its photograph. */
    entryId: uuid("entry_id").notNull(),
    type: text("type").notNull(),
    widthPx: integer("width_px").notNull(),
    heightPx: integer("height_px").notNull(),
    bytes: bytea("bytes").notNull(),
    /** By the camera's clock. */
    takenAt: timestamp("taken_at", { withTimezone: true }),
    addedAt: timestamp("added_at", { withTimezone: true }).notNull().defaultNow(),
    archivedAt: archivedAt(),
  },
  (table) => [
    index("entry_photograph_by_desk").on(table.deskId),
    index("entry_photograph_by_ride").on(table.rideId, table.entryId),
    check("entry_photograph_type", sql`${table.type} in ('image/jpeg', 'image/png')`),
  ],
);

/** What was reckoned from several tests, by the hash of what it was reckoned from: a cache, never the truth. */
export const derived = pgTable("derived", {
  key: text("key").primaryKey(),
  /** Null where nothing came of it: that is an answer too. */
  body: jsonb("body"),
  at: timestamp("at", { withTimezone: true }).notNull().defaultNow(),
});
