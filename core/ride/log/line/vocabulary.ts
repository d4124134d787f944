import { spellingsOf, type DimensionName } from "#core/base";
import { SIGHTING, SIGHTING_FIELDS, type Field, type Sighting, type SightingField } from "#core/fields";

/** What a figure is by its unit alone: the field it fills, and how a person hears it back. */
export interface UnitMeaning {
  readonly field: keyof Sighting;
  readonly dimension: DimensionName;
  readonly says: string;
}

/** Quantities that the line has words for, as they are declared. */
const SPOKEN = SIGHTING_FIELDS.flatMap((name) => {
  const { dimension, line }: Field = SIGHTING[name];
  return dimension && line ? [{ name, line, meaning: { field: name, dimension, says: line.says } }] : [];
});

/** Units as people write them, without regard to case: those that mean a field by themselves, in every spelling there is of them. */
export const UNITS: ReadonlyMap<string, UnitMeaning> = new Map(
  SPOKEN.flatMap(({ line, meaning }) =>
    (line.units?.split(" ") ?? []).flatMap((word) =>
      spellingsOf(meaning.dimension, word).map((each) => [each, meaning] as const),
    ),
  ),
);

/** Words before a figure that change what it is, or stand for its unit. */
export const LEADS: ReadonlyMap<string, UnitMeaning> = new Map(
  SPOKEN.flatMap(({ line, meaning }) =>
    (line.leads?.split(" ") ?? []).map((word) => [word, meaning] as const),
  ),
);

/** Of these a bare number needs no unit. */
export const BARE_LEADS: ReadonlySet<SightingField> = new Set(
  SPOKEN.flatMap(({ name, line }) => (line.bare ? [name] : [])),
);

/** Words that say a figure is over the whole ride: before it or behind it. */
export const OVERALL: ReadonlyMap<string, "avg" | "top"> = new Map([
  ...["avg", "average", "mean", "av"].map((word) => [word, "avg"] as const),
  ...["max", "maximum", "top", "peak"].map((word) => [word, "top"] as const),
]);

/** What a figure over the whole ride fills: "speedMps avg" is the average speed. */
export const TOTALS: ReadonlyMap<string, UnitMeaning> = new Map(
  SPOKEN.flatMap(({ line: { overall }, meaning }) =>
    overall ? [[overall.join(" "), meaning] as const] : [],
  ),
);

/** Words behind a figure that say what it is after all; null for what is none of the fields. */
export const TAILS: readonly {
  readonly of: keyof Sighting;
  readonly shape: RegExp;
  readonly is: "left" | "used" | "guess" | "none" | "steep";
}[] = [
  { of: "percent", shape: /\s+(?:used|gone|spent)/iy, is: "used" },
  { of: "percent", shape: /\s+(?:grade|gradient|incline|humidity|assist)/iy, is: "none" },
  { of: "percent", shape: /\s+(?:slope|hill)/iy, is: "steep" },
  { of: "percent", shape: /\s+(?:left|remaining|battery|charge)/iy, is: "left" },
  { of: "bars", shape: /\s+(?:left|remaining)/iy, is: "left" },
  { of: "distanceM", shape: /\s+(?:left|to go|remaining|range)/iy, is: "guess" },
];

/** Words right before a figure that add nothing to it. */
export const FILLERS: ReadonlySet<string> = new Set(["at", "now", "about", "still", "and"]);
