import { LEVEL_PLACES, MEASURES, type BoardAsk, type MeasureName } from "#core/compare";
import { GROUNDS, type Ground } from "#core/fields";
import { parseNumber } from "#core/base";

/** What the standings' address asks for; what it does not name is as shown first. */
export interface StandingsAsk extends Omit<BoardAsk, "reference"> {
  readonly drive: string | null;
  readonly bikeId: string | null;
  /** Rows chosen for a pair, two at most. */
  readonly chosen: readonly string[];
  readonly all: boolean;
}

/** Price of a kilowatt-hour when nobody types one, minor units. */
export const TARIFF_MINOR = 30;

/** Energy of the common pack when nobody types one, Wh. */
export const COMMON_WH = 500;
const LEAST_WH = 20;
const MOST_WH = 10_000;

function commonWhOf(text: string | null): number {
  const value = text === null ? COMMON_WH : parseNumber(text.replace(/wh$/i, "").trim());
  return typeof value === "number" && value >= LEAST_WH && value <= MOST_WH ? value : COMMON_WH;
}

/**
 * Reads the filters of an address; unknown names count as not given.
 *
 * @param measure the first to be shown, by the reader's units
 */
export function readAsk(search: URLSearchParams, measure: MeasureName): StandingsAsk {
  const asked = search.get("show");
  const ground = search.get("ground");
  return {
    measure: MEASURES.find((name) => name === asked) ?? measure,
    level: search.get("level") ?? LEVEL_PLACES[0],
    ground: GROUNDS.find((name): name is Ground => name === ground) ?? null,
    by: search.get("by") === "set-up" ? "set-up" : "test",
    commonWh: commonWhOf(search.get("pack")),
    drive: search.get("drive"),
    bikeId: search.get("bike"),
    chosen: search.getAll("test").slice(0, 2),
    all: search.get("rows") === "all",
  };
}
