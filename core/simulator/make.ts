import { there, nth, DEFAULTS, METRES_PER_MILE } from "#core/base";
import type { Ground } from "#core/fields";
import type { Entry, EntryBody } from "#core/ride/log";
import { testRecordSchema, type TestRecord } from "#core/records";
import { drawCourse } from "./course.ts";
import { drawPack, drawRig, drawTester, LEVELS, type Given } from "./draw.ts";
import { drawGauge, type TrueGauge } from "./gauge.ts";
import { idsFrom } from "#core/world";
import { FULL, packModel, type PackState, type TruePack } from "./pack.ts";
import { rngFrom, type Rng } from "#core/world";
import { logOf, trackOf } from "./recordings.ts";
import { rideCourse, type Sample, type TrueRig } from "./ride.ts";
import { SCENARIOS, type Scenario, type ScenarioName } from "./scenarios.ts";
import { writeLog, type Noted } from "./tester.ts";

/** What nobody on the ride could see. Energy at the terminals, Wh; distances in miles. */
export interface StandinTruth {
  readonly scenario: string;
  readonly seed: number;
  readonly whPerMi: number;
  readonly energyWh: number;
  readonly miles: number;
  /** What the pack would yield from full to cut-off on such a ride. */
  readonly capacityWh: number;
  readonly fractionUsedAtEnd: number;
  readonly cells: Readonly<Record<string, { readonly miles: number; readonly whPerMi: number }>>;
  readonly resistanceOhm: number;
  readonly displayFactor: number | null;
  readonly meterGain: number | null;
  readonly chargerEta: number | null;
  readonly barsGo: readonly number[];
  readonly lowPowerAt: number;
  /** Bike and rider as they truly are. */
  readonly rig: TrueRig;
  readonly windMps: number;
  /** Times it stood still on the way. */
  readonly stops: number;
  /** Entry whose percent was typed wrong, and what the display showed. */
  readonly slip: { readonly entryId: string; readonly shown: number } | null;
}

export interface Standin {
  readonly record: TestRecord;
  readonly truth: StandinTruth;
}

const START_S = Date.UTC(2026, 5, 1, 8) / 1000;
/** Slower than this it stands. */
const STOOD_MPS = 0.3;
const NIGHT_S = 15 * 3600;

const rounded = (value: number) => Number(value.toPrecision(10));

type Cells = Record<string, { metres: number; wh: number }>;

/** Counts metres and energy of each level on each ground, from where a day began. */
function countCells(cells: Cells, samples: readonly Sample[], from: { metres: number; wh: number }): void {
  let before = from;
  for (const { level, ground, distanceM, pack: now } of samples) {
    const cell = (cells[`${level} | ${ground}`] ??= { metres: 0, wh: 0 });
    cell.metres += distanceM - before.metres;
    cell.wh += now.usedWh - before.wh;
    before = { metres: distanceM, wh: now.usedWh };
  }
}

const ratesOf = (cells: Cells) =>
  Object.fromEntries(
    Object.entries(cells).map(([name, { metres, wh }]) => [
      name,
      { miles: metres / METRES_PER_MILE, whPerMi: metres > 0 ? (wh / metres) * METRES_PER_MILE : 0 },
    ]),
  );

const stopsIn = (samples: readonly Sample[]) =>
  samples.filter(({ speedMps }, i) => speedMps < STOOD_MPS && (samples[i - 1]?.speedMps ?? 0) >= STOOD_MPS)
    .length;

interface StandinRecord {
  readonly name: string;
  readonly seed: number;
  readonly own: Scenario;
  readonly pack: TruePack;
  readonly gauge: TrueGauge;
  readonly rig: TrueRig;
  readonly levels: readonly string[];
  readonly rides: TestRecord["rides"];
}

/** What its tester knows: the bike, the pack's label, the rider, the log. */
const standinRecord = ({ name, seed, own, pack, gauge, rig, levels, rides }: StandinRecord) =>
  testRecordSchema.parse({
    test: {
      title: `stand-in ${name} ${seed}`,
      day: "2026-06-01",
      school: own.untilEmpty ? "run-down" : "part charge",
      airTempC: pack.tempC,
      firstLevel: levels[0],
    },
    bike: {
      name: "Stand-in",
      levels: [...levels],
      massKg: rounded(rig.massKg - 75),
      percentStep: gauge.percentStep,
      bars: gauge.bars,
      wheelCircumferenceM: 2.1,
    },
    pack: {
      name: "Stand-in pack",
      chemistry: pack.chemistry,
      labelWh: pack.labelWh,
      ampHours: pack.ampHours,
      seriesCells: pack.seriesCells,
    },
    rider: { name: "Stand-in rider", massKg: 75 },
    rides,
  });

/** Everything about a test that its tester does not know. */
function drawStandin(chance: Rng, own: Scenario, given: Given) {
  const levels = given.levels ?? LEVELS;
  const pack = drawPack(chance, own, given);
  const rig = { ...drawRig(chance, levels, own.holds ?? "speed"), ...given.rig };
  const gauge = drawGauge(chance, {
    percentStep: own.percentStep ?? 1,
    bars: own.bars ?? 0,
    stuckBelow: own.stuckBelow ?? 0,
  });
  const tester = drawTester(chance, own);
  const grounds: readonly Ground[] = chance.happens(0.4) ? ["asphalt", "fine gravel"] : ["asphalt"];
  const climb = own.hilly ? chance.between(22, 45) : chance.between(4, 16);
  const course = drawCourse(chance, 160, levels, grounds, climb);
  const model = packModel(pack);
  const emptiesAt = own.untilEmpty ? 2 : chance.between(0.45, 0.92);

  const startUsed = own.startUsed ?? Math.abs(chance.normal(0, DEFAULTS.fullStartSd));
  const chargerEta =
    own.topUp || own.refill ? chance.normal(DEFAULTS.chargerEta, DEFAULTS.chargerEtaSd) : null;
  return { levels, pack, rig, gauge, tester, course, model, emptiesAt, startUsed, chargerEta };
}

interface Days {
  readonly own: Scenario;
  readonly nextId: () => string;
  /** When the first day begins, s. */
  readonly startS: number;
  readonly chance: Rng;
}

/** Rides day after day until the pack is where the scenario leaves it, each day with its log. */
function rideDays(drawn: ReturnType<typeof drawStandin>, { own, nextId, startS: firstS, chance }: Days) {
  const { pack, rig, gauge, tester, course, model, emptiesAt, startUsed, chargerEta } = drawn;
  const days = own.days ?? 1;
  let state: PackState = { ...FULL, q: model.curve.chargeAtFraction(startUsed) };
  let [atM, startS, deliveredWh] = [0, firstS, 0];
  const cells: Cells = {};
  const rides: TestRecord["rides"] = [];
  let slip: StandinTruth["slip"] = null;
  let fractionRidden = 0;
  let stops = 0;
  for (let day = 0; day < days; day += 1) {
    const share = emptiesAt * ((day + 1) / days);
    const stopAt = own.topUp ? emptiesAt * 0.85 : share;
    const until = function* (samples: Iterable<Sample>) {
      for (const sample of samples) {
        yield sample;
        if (sample.fractionUsed >= stopAt) return;
      }
    };
    const from = model.fractionUsed(state);
    const usedBefore = state.usedWh;
    const fromM = atM;
    const start: EntryBody =
      day === 0 && own.startUsed === undefined ? { kind: "start", chargerDone: true } : { kind: "start" };
    const { notes, last, samples } = writeLog(
      until(rideCourse(rig, pack, course, state, fromM, course.lengthM, chance)),
      fromM,
      pack,
      gauge,
      tester,
      own,
      chance,
      start,
    );
    if (!last) break;
    countCells(cells, samples, { metres: fromM, wh: usedBefore });
    stops += stopsIn(samples);
    deliveredWh += last.pack.usedWh - usedBefore;
    fractionRidden += last.fractionUsed - from;
    state = { ...last.pack, polarisedV: 0 };
    atM = last.distanceM;
    const noted: Noted[] = [...notes];
    const wallOf = (fraction: number) =>
      Math.round((fraction * deliveredWh) / fractionRidden / there(chargerEta));
    const refill = (toFull: boolean, fraction: number) =>
      noted.push({
        atS: last.timeS + 600,
        body: { kind: "refill", toFull, wallWh: wallOf(fraction), charger: "shed" },
      });
    if (own.topUp && day < days - 1) {
      const back = 0.35 * last.fractionUsed;
      refill(false, back);
      state = { ...state, q: model.curve.chargeAtFraction(last.fractionUsed - back) };
    }
    if (own.refill && day === days - 1) refill(true, last.fractionUsed);
    const entries = noted.map(({ atS, body }, seq): Entry => {
      const id = nextId();
      return { id, seq, at: new Date((startS + atS) * 1000).toISOString(), body, supersedes: null };
    });
    if (own.slip && slip === null) slip = mistype(entries, chance);
    rides.push({
      name: days > 1 ? `Day ${day + 1}` : "Ride 1",
      entries,
      track: own.hilly ? trackOf(samples, startS, fromM, course.heightAt) : null,
      telemetry: own.meter === "logger" ? logOf(samples, startS, tester.meterGain, chance) : null,
    });
    startS += last.timeS + NIGHT_S;
    if (last.cutOff) break;
  }
  return { atM, deliveredWh, fractionRidden, state, cells, stops, slip, rides };
}

/**
 * A made test with its hidden truth: pack, rider, road and instruments drawn from the seed, ridden second by second, and
 * noted as a person would. The same seed and scenario give the same test.
 *
 * @param scenario by name, or as an object of one's own; @param given what is not drawn
 */
export function makeStandin(seed: number, scenario: ScenarioName | Scenario, given: Given = {}): Standin {
  const name = typeof scenario === "string" ? scenario : "own";
  const own: Scenario = typeof scenario === "string" ? SCENARIOS[scenario] : scenario;
  const chance = rngFrom(seed);
  const nextId = given.nextId ?? idsFrom(seed, "019b");
  const drawn = drawStandin(chance, own, given);
  const { pack, rig, gauge, tester, course, model, chargerEta, levels } = drawn;
  const ridden = rideDays(drawn, { own, nextId, startS: given.startS ?? START_S, chance });
  const { atM, deliveredWh, fractionRidden, state, cells, stops, slip, rides } = ridden;
  const miles = atM / METRES_PER_MILE;
  const record = standinRecord({ name, seed, own, pack, gauge, rig, levels, rides });
  return {
    record,
    truth: {
      scenario: name,
      seed,
      whPerMi: deliveredWh / miles,
      energyWh: deliveredWh,
      miles,
      capacityWh: deliveredWh / fractionRidden,
      fractionUsedAtEnd: model.fractionUsed(state),
      cells: ratesOf(cells),
      resistanceOhm: pack.ohm * (1 + 0.02 * Math.max(0, 25 - pack.tempC)),
      displayFactor: tester.display,
      meterGain: own.meter ? tester.meterGain : null,
      chargerEta,
      barsGo: gauge.barsGo,
      lowPowerAt: rig.lowPowerAt,
      rig,
      windMps: course.windMps,
      stops,
      slip,
    },
  };
}

/** Types one percent of the middle ten points off, in place; which and what the display showed. */
function mistype(entries: Entry[], chance: Rng): StandinTruth["slip"] {
  const able = entries
    .map(({ body }, i) => ({ i, percent: "percent" in body ? body.percent : undefined }))
    .filter(
      ({ percent, i }) =>
        percent !== undefined && percent > 15 && percent < 85 && i > 0 && i < entries.length - 1,
    );
  const pick = able[Math.floor(chance.next() * able.length)];
  if (!pick) return null;
  const entry = nth(entries, pick.i);
  const typed = there(pick.percent) + (chance.happens(0.5) ? 10 : -10);
  entries[pick.i] = { ...entry, body: { ...entry.body, percent: typed } as EntryBody };
  return { entryId: entry.id, shown: there(pick.percent) };
}
