import { fromSi, toSi, unitOf, type System } from "#core/base";
import type { StripResults } from "#app/services/strip/view";
import { stepsCovering, stepsWithin } from "#app/ui/charts/scale";

const LEFT = 74;
const RIGHT = 14;
/** Room inside the axes, so that the first and last readings clear the figures. */
const INSET = 12;
const GAP = 22;
/** Share of the way below which a stretch does not set the scale of use. */
const SHORTEST_SEEN = 0.01;

interface Band {
  readonly top: number;
  readonly height: number;
}

/** Where every track lies and how its values become pixels. */
export interface StripLayout {
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly right: number;
  readonly profile: Band | null;
  readonly ground: Band;
  readonly level: Band;
  readonly energy: Band;
  readonly logged: Band | null;
  readonly use: Band;
  readonly axis: number;
  readonly distanceUnit: string;
  readonly useUnit: string;
  readonly useSteps: readonly number[];
  readonly distanceSteps: readonly number[];
  x(metres: number): number;
  /** Height on the energy track of a fraction used. */
  yOfUsed(used: number): number;
  yOfUse(whPerM: number): number;
}

/** How high a level's band is drawn, 0..1, and whether it is hatched as throttle. */
export function bandOf(
  level: string,
  levels: readonly string[],
): { readonly share: number; readonly throttle: boolean } {
  if (level === "throttle") return { share: 1, throttle: true };
  const at = levels.indexOf(level);
  return { share: at < 0 ? 0.5 : (at + 1) / levels.length, throttle: false };
}

/** Lays the tracks out for a width: profile and logged tracks only where there is something to draw. */
export function layOutStrip(results: StripResults, width: number, system: System): StripLayout {
  const { curve, stretches, profile, series } = results;
  const first = curve[0]!.distanceM;
  const last = curve.at(-1)!.distanceM;
  // A stretch of a few yards can cost anything: the scale is set by those long enough to be seen.
  const seen = stretches.filter(({ fromM, toM }) => toM - fromM >= SHORTEST_SEEN * (last - first));
  const most = Math.max(...(seen.length ? seen : stretches).map(({ whPerM }) => whPerM.mean + whPerM.sd), 0);
  const useUnit = unitOf("energyPerDistance", system);
  const useSteps = stepsCovering(fromSi(most, "energyPerDistance", useUnit), 3);
  const useTop = toSi(useSteps.at(-1)!, "energyPerDistance", useUnit)!;
  const distanceUnit = unitOf("distance", system);
  let at = 8;
  const take = (height: number, gap = GAP): Band => {
    const top = at;
    at += height + gap;
    return { top, height };
  };
  const profileBand = profile ? take(34, 0) : null;
  const ground = take(18, 14);
  const level = take(26);
  const energy = take(236, 30);
  const logged = series ? take(56, 26) : null;
  const use = take(84, 10);
  const x = (metres: number) =>
    LEFT + INSET + ((metres - first) / Math.max(1, last - first)) * (width - LEFT - RIGHT - 2 * INSET);
  return {
    width,
    height: at + 34,
    left: LEFT,
    right: width - RIGHT,
    profile: profileBand,
    ground,
    level,
    energy,
    logged,
    use,
    axis: at,
    distanceUnit,
    useUnit,
    useSteps,
    distanceSteps: stepsWithin(
      fromSi(first, "distance", distanceUnit),
      fromSi(last, "distance", distanceUnit),
      Math.max(3, Math.floor(width / 110)),
    ),
    x,
    yOfUsed: (used) => energy.top + Math.min(1.04, Math.max(-0.04, used)) * energy.height,
    yOfUse: (whPerM) => use.top + use.height - (Math.min(useTop, Math.max(0, whPerM)) / useTop) * use.height,
  };
}
