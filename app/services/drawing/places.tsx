import { fromSi, halfWidth95, unitOf, writeUncertain, type Estimate, type System } from "#core/base";
import { stepsCovering } from "#app/ui/charts/scale";
import { Rows, rowsHeight, type DrawnRow } from "./rows";
import { svgOf } from "./svg";

/** A figure with its name. */
export interface Placed {
  readonly name: string;
  /** Wh per metre. */
  readonly value: Estimate;
  readonly hollow: boolean;
}

const DIMENSION = "energyPerDistance";
const ROW = 26;
const LETTERS = 13;

/** Figures as rows of a drawing, in the units of a system. A span longer than its figure is cut at twice it. */
export function rowsOfPlaces(places: readonly Placed[], system: System): readonly DrawnRow[] {
  const unit = unitOf(DIMENSION, system);
  const shown = (whPerM: number) => fromSi(whPerM, DIMENSION, unit);
  return places.map(({ name, value, hollow }) => {
    const { value: text, spread } = writeUncertain(value, DIMENSION, system);
    const by = halfWidth95(value);
    return {
      name,
      says: `${text} ${spread}`,
      mean: shown(value.mean),
      low: shown(Math.max(0, value.mean - by)),
      high: shown(Math.min(2 * value.mean, value.mean + by)),
      hollow,
    };
  });
}

/** The scale that holds some rows. */
export const stepsFor = (rows: readonly DrawnRow[]): readonly number[] =>
  stepsCovering(Math.max(1e-6, ...rows.flatMap(({ high, claimed }) => [high, claimed?.high ?? 0])), 4);

/** The standings of a page. */
export function placesSvg(places: readonly Placed[], system: System, width: number): string {
  const rows = rowsOfPlaces(places, system);
  return svgOf(
    width,
    rowsHeight(rows.length, ROW, LETTERS) + 8,
    "light",
    <g transform="translate(0 4)">
      <Rows rows={rows} width={width} each={ROW} size={LETTERS} theme="light" steps={stepsFor(rows)} />
    </g>,
  );
}
