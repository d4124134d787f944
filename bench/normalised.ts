import { differenceTraced, untraced, underReference, type Compared, type Traced } from "#core/compare";
import { METRES_PER_MILE, MPS_PER_MPH, SDS_95 } from "#core/quantities";
import type { Effort } from "#core/records";
import { reckonTest } from "#core/results";
import { conditionsFor, courseEnergy, REFERENCES } from "#core/roadload";
import { ASSUMED } from "#core/assumptions";
import { EFFORT_W } from "#core/plan";
import { chanceFrom, makeStandin, type Chance, type Scenario } from "#core/standin";
import type { TrialFigure } from "./trial.ts";

const HOUSE = REFERENCES[0]!;
const EFFORTS: readonly Effort[] = ["feather-light", "easy", "steady"];
const RIDER_KG = 75;

interface Ridden {
  readonly traced: Traced;
  readonly plainWhPerMi: number;
  readonly truthWhPerMi: number;
}

const lognormal = (chance: Chance, mean: number, share: number) => mean * Math.exp(share * chance.normal());

/** A day's circumstances: by hand or with a meter, hilly with a track or not, cold or warm. */
function scenarioOf(chance: Chance): Scenario {
  return {
    what: "pair",
    percentStep: 1,
    restVolts: chance.happens(0.4) ? 0.3 : 0,
    tempC: Math.round(chance.between(0, 26)),
    ...(chance.happens(0.4) && { meter: "counter" as const }),
    ...(chance.happens(0.4) && { hilly: true }),
  };
}

/** A bike that differs from its assumptions as they allow, ridden once, noted as a tester would, and brought to House. */
function ride(seed: number): Ridden {
  const chance = chanceFrom(seed * 104_729 + 7);
  const effort = EFFORTS[Math.floor(chance.next() * EFFORTS.length)]!;
  const bike = {
    crr: lognormal(chance, ASSUMED.rollingAsphalt, ASSUMED.rollingSdShare),
    cdA: lognormal(chance, ASSUMED.dragAreaM2, ASSUMED.dragSdShare),
    etaM: lognormal(chance, ASSUMED.hubEfficiency, Math.SQRT2 * ASSUMED.efficiencySdShare),
  };
  const bikeKg = chance.between(20, 40);
  const { record, truth } = makeStandin(seed, scenarioOf(chance), {
    rig: {
      ...bike,
      massKg: bikeKg + RIDER_KG + chance.between(0, 30),
      riderW: lognormal(chance, EFFORT_W[effort], ASSUMED.riderSdShare),
    },
  });
  const carriedKg = truth.rig.massKg - RIDER_KG - bikeKg;
  const told = {
    ...record,
    bike: { ...record.bike, massKg: bikeKg, assistToMps: truth.rig.assistToMps },
    test: {
      ...record.test,
      effort,
      stops: truth.stops,
      windMps: Math.max(0, truth.windMps + chance.normal(0, ASSUMED.windSdMps)),
    },
  };
  const results = reckonTest(told);
  if (!results.ok) throw new Error(`seed ${seed}: ${results.problems[0]!.sentence}`);
  const setUp = {
    name: "only",
    tyre: "",
    tyreClass: "city" as const,
    posture: "upright" as const,
    lightsOn: truth.rig.lightsOn,
    carriedKg,
    changed: "",
    pencil: [],
  };
  const compared: Compared = {
    id: `test ${seed}`,
    bikeId: `bike ${seed}`,
    packId: `pack ${seed}`,
    ridden: { test: told.test, bike: told.bike, setUp, rider: record.rider, results: results.value },
    bikeKg,
    fitted: null,
  };
  const under = underReference(compared, HOUSE);
  if (!under.ok) throw new Error(`seed ${seed}: ${under.problems[0]!.sentence}`);
  return {
    traced: under.value.traced,
    plainWhPerMi: (results.value.plain?.whPerM ?? results.value.best.value.mean) * METRES_PER_MILE,
    truthWhPerMi: courseEnergy(conditionsFor(HOUSE, bikeKg), { ...bike, assistToMps: 20 * MPS_PER_MPH }),
  };
}

const share = (hits: readonly boolean[]) => hits.filter(Boolean).length / hits.length;

/**
 * Pairs of seeded bikes, each ridden once in weather, hills, load and effort of its own, brought to House: how often the
 * spans hold the truth, and how often the order is right, by the figures under House and by plain arithmetic as ridden.
 */
export function pairsTrial(pairs: number): readonly TrialFigure[] {
  const ridden = Array.from({ length: 2 * pairs }, (_, i) => ride(i + 1));
  const covered = ridden.map(({ traced, truthWhPerMi }) => {
    const { mean, sd } = untraced(traced);
    return Math.abs(mean * METRES_PER_MILE - truthWhPerMi) <= SDS_95 * sd * METRES_PER_MILE;
  });
  const verdicts = Array.from({ length: pairs }, (_, i) => {
    const [a, b] = [ridden[2 * i]!, ridden[2 * i + 1]!];
    const truly = a.truthWhPerMi < b.truthWhPerMi;
    const { mean, sd } = untraced(differenceTraced(a.traced, b.traced));
    const off = mean * METRES_PER_MILE - (a.truthWhPerMi - b.truthWhPerMi);
    return {
      normalised: a.traced.mean < b.traced.mean === truly,
      plain: a.plainWhPerMi < b.plainWhPerMi === truly,
      difference: Math.abs(off) <= SDS_95 * sd * METRES_PER_MILE,
    };
  });
  const plain = share(verdicts.map((each) => each.plain));
  const of = pairs;
  return [
    {
      what: "95 % spans under House that hold the truth",
      value: share(covered),
      low: 0.9,
      high: 0.98,
      of: covered.length,
    },
    {
      what: "95 % spans of a pair's difference that do",
      value: share(verdicts.map(({ difference }) => difference)),
      low: 0.9,
      high: 1,
      of,
    },
    { what: "pairs in the right order, plain as ridden", value: plain, low: 0, high: 1, of },
    {
      what: "pairs in the right order, under House",
      value: share(verdicts.map(({ normalised }) => normalised)),
      low: plain,
      high: 1,
      of,
    },
  ];
}
