import { there } from "#core/base";
import { labelEnergy, usableOnRide } from "#core/battery";
import type { PackRecord } from "#core/records";

/** A way to more energy on a bike: another pack instead of its own, or beside it. */
export interface PackOption {
  readonly name: string;
  readonly way: "instead" | "beside";
  /** Usable energy it adds at 25 C, Wh; less than nothing for a smaller pack instead. */
  readonly addedWh: number;
  /** What that costs, minor units; null where a price is missing. */
  readonly addedMinor: number | null;
}

/**
 * What a pack costs more than another, minor units: by both prices, else by what either costs more than the one the bike comes with.
 *
 * @param areTwo there is no third pack, so that one without a difference is the one the bike comes with
 */
function costsMore(pack: PackRecord, own: PackRecord, areTwo: boolean): number | null {
  if (pack.priceMinor !== undefined && own.priceMinor !== undefined) return pack.priceMinor - own.priceMinor;
  const [other, mine] = [pack.priceMoreMinor, own.priceMoreMinor];
  if (other !== undefined) return other - (mine ?? 0);
  return mine !== undefined && areTwo ? -mine : null;
}

/** What each Wh of an option costs, minor units: a smaller pack that saves money tells it too; null where nothing does. */
const perWh = ({ addedWh, addedMinor }: Pick<PackOption, "addedWh" | "addedMinor">): number | null =>
  addedMinor !== null && addedMinor * addedWh > 0 ? addedMinor / addedWh : null;

const usableOf = (pack: PackRecord) => {
  const found = usableOnRide({ ...pack, packTempC: 25 });
  return found.ok ? found.value.mean : null;
};

/**
 * What a bike's other packs would add to one of them: larger and smaller ones instead of it, and beside it where the bike runs two.
 *
 * @param own the pack tested; @param others of the same bike; @param runsTwo the bike takes a second pack beside the first
 */
export function packOptions(
  own: PackRecord,
  others: readonly PackRecord[],
  runsTwo: boolean,
): readonly PackOption[] {
  const has = usableOf(own);
  if (has === null) return [];
  return others.flatMap((pack): readonly PackOption[] => {
    const wh = usableOf(pack);
    if (wh === null || !labelEnergy(pack).ok) return [];
    const { name, priceMinor = null } = pack;
    return [
      { name, way: "instead", addedWh: wh - has, addedMinor: costsMore(pack, own, others.length === 1) },
      ...(runsTwo ? [{ name, way: "beside" as const, addedWh: wh, addedMinor: priceMinor }] : []),
    ];
  });
}

/**
 * What an option makes of the range of a figure, m, and what each metre more or less costs, minor units; null where no price
 * tells it.
 *
 * @param whPerM Wh per metre; @param ownM the range on its own pack, m
 */
export function optionRange(option: PackOption, whPerM: number, ownM: number) {
  const { addedWh } = option;
  const each = perWh(option);
  return {
    rangeM: ownM + addedWh / whPerM,
    addedM: addedWh / whPerM,
    perMetreMinor: each === null ? null : each * whPerM,
  };
}

/**
 * The option whose energy is cheapest; where none adds any, what the own pack costs more than a smaller one. Null where no price
 * tells it.
 */
export function cheapestOption(options: readonly PackOption[]): PackOption | null {
  const priced = options.filter((each) => perWh(each) !== null);
  const adding = priced.filter(({ addedWh }) => addedWh > 0);
  const byPrice = (adding.length ? adding : [...priced]).sort((a, b) => there(perWh(a)) - there(perWh(b)));
  return byPrice[0] ?? null;
}
