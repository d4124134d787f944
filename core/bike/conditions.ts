import { nth, DEFAULTS, METRES_PER_MILE, bisect } from "#core/base";
import type { RouteSegment } from "#core/route";
import { stopWh } from "./course.ts";
import { roadPower, type RoadState } from "./power.ts";

/** Bike, rider, load and weather of a ride, planned or ridden. SI units. */
export interface RideConditions {
  /** Bike, rider and load. */
  readonly massKg: number;
  /** Doubt of it, 1 sd, as a share. */
  readonly massSdShare: number;
  readonly cdA: number;
  /** On asphalt. */
  readonly crr: number;
  /** On grounds where it was measured; elsewhere that on asphalt times the ground's factor. */
  readonly crrBy?: RoadState["crrBy"];
  readonly etaD: number;
  readonly etaM: number;
  /** Where the motor rests; Infinity on the throttle of a bike that has no such speed. */
  readonly assistToMps: number;
  readonly lightsOn: boolean;
  readonly tempC: number;
  readonly altitudeM: number;
  /** How strong the wind is, and from where in degrees; null when its direction is not known. */
  readonly windMps: number;
  readonly windFromDeg: number | null;
  /** Doubt of the wind, 1 sd, m/s. */
  readonly windSdMps: number;
  readonly stopsPerMi: number;
  /** Doubt of how many stops, 1 sd, as a share; the assumption's where nobody counted. */
  readonly stopsSdShare?: number | undefined;
  readonly riderW: number;
  /** By what it is known: the throttle, watts, a heart rate on the rider's line, a word for it, or nothing. */
  readonly riderBy: "throttle" | "watts" | "heart" | "word" | "nothing";
  /** Doubt of it on the day, 1 sd, as a share. */
  readonly riderSdShare: number;
  /** Doubt of what a word or a heart rate means with this rider, on all days alike, 1 sd, as a share; none where left out. */
  readonly habitSdShare?: number;
  /** Doubt of the speeds, 1 sd, as a share. */
  readonly speedSdShare: number;
  /** Level where the course names none. */
  readonly level: string;
  /** Speed held at each level. */
  readonly speedMps: Readonly<Record<string, number>>;
  /** Most the motor gives at each level; left out where nothing is known of it. */
  readonly motorW: Readonly<Record<string, number>>;
  /** How the force varies along each segment, 1 sd, N; 0 where left out. */
  readonly unevenN?: number;
  /** What the bike takes beside what the road load says of it; 1 where left out. */
  readonly energyFactor?: number;
}

/** What a stretch takes: energy at the pack's terminals, and time. */
export interface SegmentCost {
  readonly wh: number;
  readonly s: number;
}

/** Slowest speed at which a bike is still ridden, m/s. */
const WALKING_MPS = 1;
const HALVINGS = 14;
/** A wind from anywhere, over a way whose headings are not known: the mean of |cos| over all directions. */
const MEAN_COSINE = 2 / Math.PI;

/** The bike on a piece. Written out, not spread: this runs a hundred thousand times for one forecast. */
const stateOn = (
  piece: RouteSegment,
  rig: RideConditions,
  headwindMps: number,
  speedMps: number,
): RoadState => ({
  massKg: rig.massKg,
  speedMps,
  slope: piece.slope,
  headwindMps,
  ground: piece.ground,
  tempC: rig.tempC,
  altitudeM: rig.altitudeM,
  riderW: rig.riderW,
  lightsOn: rig.lightsOn,
  cdA: rig.cdA,
  crr: rig.crr,
  crrBy: rig.crrBy,
  etaD: rig.etaD,
  etaM: rig.etaM,
  assistToMps: rig.assistToMps,
  unevenN: rig.unevenN,
});

/** The speed held, and what it takes: the one wanted, or the most at which the motor's need stays within what it gives. */
function held(
  piece: RouteSegment,
  rig: RideConditions,
  headwindMps: number,
  wantedMps: number,
  mostW: number,
) {
  const at = (speedMps: number) => roadPower(stateOn(piece, rig, headwindMps, speedMps));
  const wanted = at(wantedMps);
  if (wanted.motorW <= mostW) return { speedMps: wantedMps, batteryW: wanted.batteryW };
  const [speedMps] = bisect(WALKING_MPS, wantedMps, HALVINGS, (tried) => at(tried).motorW <= mostW);
  return { speedMps, batteryW: at(speedMps).batteryW };
}

/** Headwinds a piece is ridden in, each for an equal share of it. */
function headwinds(
  { headingDeg }: RouteSegment,
  { windMps, windFromDeg }: RideConditions,
): readonly number[] {
  if (windMps === 0) return [0];
  if (headingDeg === null || windFromDeg === null) return [windMps * MEAN_COSINE, -windMps * MEAN_COSINE];
  return [windMps * Math.cos(((windFromDeg - headingDeg) * Math.PI) / 180)];
}

/** Energy and time of one piece, its share of the stops included. */
export function segmentCost(piece: RouteSegment, rig: RideConditions): SegmentCost {
  const level = piece.level in rig.speedMps ? piece.level : rig.level;
  const wantedMps = Math.min(nth(rig.speedMps, level), rig.assistToMps);
  const winds = headwinds(piece, rig);
  let [wh, s] = [0, 0];
  for (const headwindMps of winds) {
    const { speedMps, batteryW } = held(piece, rig, headwindMps, wantedMps, rig.motorW[level] ?? Infinity);
    const seconds = piece.lengthM / winds.length / speedMps;
    wh += (batteryW * seconds) / 3600;
    s += seconds;
  }
  const stops = (rig.stopsPerMi * piece.lengthM) / METRES_PER_MILE;
  const riddenWh = wh + stops * stopWh(rig.massKg, wantedMps, rig);
  return { wh: riddenWh * (rig.energyFactor ?? 1), s: s + stops * DEFAULTS.stopS };
}

/** Energy and time of a row of pieces. */
export function routeCost(pieces: readonly RouteSegment[], rig: RideConditions): SegmentCost {
  let [wh, s] = [0, 0];
  for (const piece of pieces) {
    const use = segmentCost(piece, rig);
    wh += use.wh;
    s += use.s;
  }
  return { wh, s };
}
