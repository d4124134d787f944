import { BIKE_UNKNOWNS, UNKNOWNS } from "#core/forecast";
import type { Compared } from "./compared.ts";

/** Directions in which the bike's own unknowns may move: each in its own line where nothing was fitted. */
export function bikeDirections({
  bikeId,
  ridden: { setUp },
  fitted,
}: Compared): readonly { readonly key: string; readonly z: readonly number[] }[] {
  const own = `${bikeId}/${setUp?.tyreClass ?? "city"}/${setUp?.posture ?? "upright"}`;
  const unit = (k: number) => UNKNOWNS.map((_, i) => (i === k ? 1 : 0));
  if (!fitted)
    return Array.from({ length: BIKE_UNKNOWNS }, (_, k) => ({
      key: `${UNKNOWNS[k]!.name}:${own}`,
      z: unit(k),
    }));
  return lowerTriangle(fitted.knowledge.covariance).map((z, k) => ({
    key: `fitted ${UNKNOWNS[k]!.name}:${bikeId}`,
    z,
  }));
}

/** Where the bike's unknowns stand: at the assumptions, or where a fit puts them. */
export function bikeMean({ fitted }: Compared): readonly number[] {
  return UNKNOWNS.map((_, i) => fitted?.knowledge.mean[i] ?? 0);
}

/** Columns of the lower triangle whose square is a covariance (Cholesky). */
function lowerTriangle(covariance: readonly (readonly number[])[]): readonly (readonly number[])[] {
  const n = covariance.length;
  const l = covariance.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = covariance[i]![j]!;
      for (let k = 0; k < j; k += 1) sum -= l[i]![k]! * l[j]![k]!;
      l[i]![j] = i === j ? Math.sqrt(Math.max(0, sum)) : l[j]![j]! > 0 ? sum / l[j]![j]! : 0;
    }
  return l[0]!.map((_, j) => l.map((row) => row[j]!));
}
