import { nth, DEFAULTS, METRES_PER_MILE } from "#core/base";
import type { Ground } from "#core/fields";
import { roadPower, type RoadState } from "#core/bike";
import type { TrueCourse } from "./course.ts";
import { packModel, type PackState, type TruePack } from "./pack.ts";
import type { Rng } from "#core/world";

/** Bike and rider as they truly are. */
export interface TrueRig {
  readonly massKg: number;
  readonly cdA: number;
  readonly crr: number;
  readonly etaM: number;
  readonly lightsOn: boolean;
  /** Speed the rider holds, and most the motor gives, by level. */
  readonly levels: Readonly<Record<string, { readonly speedMps: number; readonly motorW: number }>>;
  readonly riderW: number;
  /** What the rider keeps even: the speed, or the power, hills or not. */
  readonly holds: "speed" | "power";
  readonly stopsPerMile: number;
  /** Above this the motor rests. */
  readonly assistToMps: number;
  /** Fraction used at which low-power mode begins, and what it leaves of the motor. */
  readonly lowPowerAt: number;
}

/** One moment of the ride, as it truly is. */
export interface Sample {
  /** Since the ride's start, s. */
  readonly timeS: number;
  readonly distanceM: number;
  readonly speedMps: number;
  readonly level: string;
  readonly ground: Ground;
  /** At the terminals. */
  readonly volts: number;
  readonly amps: number;
  readonly pack: PackState;
  readonly fractionUsed: number;
  readonly lowPower: boolean;
  /** Seconds since the bike last drew power; 0 while it does. */
  readonly restS: number;
  readonly cutOff: boolean;
}

/** When the rider is told to stand still, s since the ride's start; without an end, until further notice. */
export interface Stand {
  readonly fromS: number;
  readonly toS: number | null;
}

const LOW_POWER_SHARE = 0.4;
/** Share of the motor's most that a rider who holds a power asks for. */
const EVEN_SHARE = 0.45;
const HARDEST_BRAKE = -1.6;
const QUICKEST_START = 0.8;
/** How fast gusts come and go, s. */
const GUST_S = 20;

/** What a moment asks for: the speed as it is and as it is wanted, and the most the level gives. */
interface Wanted {
  readonly speedMps: number;
  readonly target: number;
  readonly most: number;
  readonly lowPower: boolean;
}

/** What the motor gives of what is asked, what that draws from the pack, and how the bike gains or loses speed. */
function demandOf(
  rig: TrueRig,
  state: RoadState & { readonly riderW: number; readonly accelerationMps2: number },
  { speedMps, target, most, lowPower }: Wanted,
) {
  const holdsPower = rig.holds === "power" && target > 0;
  const need = roadPower(holdsPower ? { ...state, accelerationMps2: 0 } : state);
  const limit = speedMps > rig.assistToMps ? 0 : most * (lowPower ? LOW_POWER_SHARE : 1);
  const standing = target === 0 && speedMps < 0.3;
  const evenW = EVEN_SHARE * limit;
  const motorW = standing ? 0 : holdsPower ? evenW : Math.min(need.motorW, limit);
  const wheelW = (motorW + state.riderW) * DEFAULTS.drivetrainEfficiency;
  const short = holdsPower ? 0 : need.motorW - motorW;
  const lacks = short > 0 ? (short * DEFAULTS.drivetrainEfficiency) / (rig.massKg * state.speedMps) : 0;
  const spare = (wheelW / state.speedMps - need.forceN) / rig.massKg;
  const accelerates = standing
    ? 0
    : holdsPower
      ? Math.min(QUICKEST_START, Math.max(HARDEST_BRAKE, spare))
      : state.accelerationMps2 - lacks;
  const watts = motorW / rig.etaM + need.batteryW - need.motorW / rig.etaM;
  return { standing, accelerates, motorW, watts };
}

/**
 * Rides a course second by second from a pack state: a rider who holds a speed or a power with the level's help, stops now
 * and then, slows on hills; a pack that sags, settles and at last cuts off. Ends at the course's end or the cut-off.
 */
export function* rideCourse(
  rig: TrueRig,
  truePack: TruePack,
  course: TrueCourse,
  from: PackState,
  fromM: number,
  toM: number,
  chance: Rng,
  stands: readonly Stand[] = [],
): Generator<Sample> {
  const model = packModel(truePack);
  let pack = from;
  let [timeS, distanceM, speedMps, restS, standS, gust] = [0, fromM, 0, 0, 0, 0];
  let next = 0;
  while (distanceM < toM) {
    while (next < course.stretches.length - 1 && nth(course.stretches, next).toM <= distanceM) next += 1;
    const { level, ground } = nth(course.stretches, next);
    const { speedMps: wanted, motorW: most } = nth(rig.levels, level);
    const fractionUsed = model.fractionUsed(pack);
    const lowPower = fractionUsed >= rig.lowPowerAt;
    gust += (-gust + chance.normal(0, 0.8) * Math.sqrt(2 * GUST_S)) / GUST_S;
    if (standS === 0 && speedMps > 2 && chance.happens((rig.stopsPerMile * speedMps) / METRES_PER_MILE))
      standS = Math.round(chance.between(8, 45));
    const told = stands.some(({ fromS, toS }) => timeS >= fromS && (toS === null || timeS < toS));
    const target = standS > 0 || told ? 0 : wanted;
    const riderW = rig.riderW * (course.effortAt?.(distanceM) ?? 1);
    const state = {
      massKg: rig.massKg,
      speedMps: Math.max(speedMps, 1),
      slope: course.slopeAt(distanceM),
      headwindMps: course.headwindAt(distanceM) + gust,
      accelerationMps2: Math.min(QUICKEST_START, Math.max(HARDEST_BRAKE, (target - speedMps) / 3)),
      ground,
      tempC: truePack.tempC,
      cdA: rig.cdA,
      crr: rig.crr,
      etaM: rig.etaM,
      lightsOn: rig.lightsOn,
      riderW,
    };
    const { standing, accelerates, motorW, watts } = demandOf(rig, state, {
      speedMps,
      target,
      most,
      lowPower,
    });
    const drawn = model.draw(pack, watts, 1);
    if (!drawn) {
      yield { timeS, distanceM, speedMps, level, ground, volts: model.restVolts(pack), amps: 0, pack, fractionUsed, lowPower, restS, cutOff: true }; // prettier-ignore
      return;
    }
    pack = drawn.state;
    const before = speedMps;
    speedMps = standing ? 0 : Math.max(target === 0 ? 0 : 0.6, speedMps + accelerates);
    distanceM += standing ? 0 : (before + speedMps) / 2;
    if (standing) standS = Math.max(0, standS - 1);
    restS = motorW > 0 ? 0 : restS + 1;
    timeS += 1;
    yield {
      timeS,
      distanceM,
      speedMps,
      level,
      ground,
      volts: drawn.volts,
      amps: drawn.amps,
      pack,
      fractionUsed: model.fractionUsed(pack),
      lowPower,
      restS,
      cutOff: false,
    };
  }
}
