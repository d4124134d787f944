import { roadPower, stopWh, type RoadState } from "#core/roadload";
import type { Piece } from "#core/course";
import { METRES_PER_MILE } from "#core/quantities";
import { ASSUMED } from "#core/assumptions";

/** Bike, rider, load and weather as a forecast takes them. SI units. */
export interface Rig {
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
  readonly stopsPerMi: number;
  /** Doubt of how many stops, 1 sd, as a share; the assumption's where nobody counted. */
  readonly stopsSdShare?: number | undefined;
  readonly riderW: number;
  /** Doubt of it, 1 sd, as a share. */
  readonly riderSdShare: number;
  /** Doubt of the speeds, 1 sd, as a share. */
  readonly speedSdShare: number;
  /** Level where the course names none. */
  readonly level: string;
  /** Speed held at each level. */
  readonly speedMps: Readonly<Record<string, number>>;
  /** Most the motor gives at each level; left out where nothing is known of it. */
  readonly motorW: Readonly<Record<string, number>>;
}

/** What a stretch takes: energy at the pack's terminals, and time. */
export interface Use {
  readonly wh: number;
  readonly s: number;
}

/** Slowest speed at which a bike is still ridden, m/s. */
const WALKING_MPS = 1;
const HALVINGS = 14;
/** A wind from anywhere, over a way whose headings are not known: the mean of |cos| over all directions. */
const MEAN_COSINE = 2 / Math.PI;

/** The bike on a piece. Written out, not spread: this runs a hundred thousand times for one forecast. */
const stateOn = (piece: Piece, rig: Rig, headwindMps: number, speedMps: number): RoadState => ({
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
});

/** The speed held, and what it takes: the one wanted, or the most at which the motor's need stays within what it gives. */
function held(piece: Piece, rig: Rig, headwindMps: number, wantedMps: number, mostW: number) {
  const wanted = roadPower(stateOn(piece, rig, headwindMps, wantedMps));
  if (wanted.motorW <= mostW) return { speedMps: wantedMps, batteryW: wanted.batteryW };
  let [low, high] = [WALKING_MPS, wantedMps];
  let { batteryW } = wanted;
  for (let i = 0; i < HALVINGS; i += 1) {
    const middle = (low + high) / 2;
    const tried = roadPower(stateOn(piece, rig, headwindMps, middle));
    if (tried.motorW > mostW) high = middle;
    else [low, batteryW] = [middle, tried.batteryW];
  }
  return { speedMps: low, batteryW };
}

/** Headwinds a piece is ridden in, each for an equal share of it. */
function headwinds({ headingDeg }: Piece, { windMps, windFromDeg }: Rig): readonly number[] {
  if (windMps === 0) return [0];
  if (headingDeg === null || windFromDeg === null) return [windMps * MEAN_COSINE, -windMps * MEAN_COSINE];
  return [windMps * Math.cos(((windFromDeg - headingDeg) * Math.PI) / 180)];
}

/** Energy and time of one piece, its share of the stops included. */
export function pieceUse(piece: Piece, rig: Rig): Use {
  const level = piece.level in rig.speedMps ? piece.level : rig.level;
  const wantedMps = Math.min(rig.speedMps[level]!, rig.assistToMps);
  const winds = headwinds(piece, rig);
  let [wh, s] = [0, 0];
  for (const headwindMps of winds) {
    const { speedMps, batteryW } = held(piece, rig, headwindMps, wantedMps, rig.motorW[level] ?? Infinity);
    const seconds = piece.lengthM / winds.length / speedMps;
    wh += (batteryW * seconds) / 3600;
    s += seconds;
  }
  const stops = (rig.stopsPerMi * piece.lengthM) / METRES_PER_MILE;
  return { wh: wh + stops * stopWh(rig.massKg, wantedMps, rig), s: s + stops * ASSUMED.stopS };
}

/** Energy and time of a row of pieces. */
export function piecesUse(pieces: readonly Piece[], rig: Rig): Use {
  let [wh, s] = [0, 0];
  for (const piece of pieces) {
    const use = pieceUse(piece, rig);
    wh += use.wh;
    s += use.s;
  }
  return { wh, s };
}
