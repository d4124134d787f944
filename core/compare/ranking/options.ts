import { there } from "#core/base";
import { labelEnergy, usableEnergy } from "#core/battery";
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

const usableOf = (pack: PackRecord) => {
  const found = usableEnergy({ ...pack, packTempC: 25 });
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
    const { name, priceMinor } = pack;
    const paid = priceMinor ?? null;
    const more = paid === null || own.priceMinor === undefined ? null : paid - own.priceMinor;
    return [
      { name, way: "instead", addedWh: wh - has, addedMinor: more },
      ...(runsTwo ? [{ name, way: "beside" as const, addedWh: wh, addedMinor: paid }] : []),
    ];
  });
}

/**
 * What an option makes of the range of a figure, m, and what each added metre costs, minor units; null where it adds none or
 * has no price.
 *
 * @param whPerM Wh per metre; @param ownM the range on its own pack, m
 */
export function optionRange({ addedWh, addedMinor }: PackOption, whPerM: number, ownM: number) {
  return {
    rangeM: ownM + addedWh / whPerM,
    addedM: addedWh / whPerM,
    perMetreMinor: addedMinor === null || addedWh <= 0 ? null : (addedMinor / addedWh) * whPerM,
  };
}

/** The option whose energy is cheapest; null where none adds any at a known price. */
export function cheapestOption(options: readonly PackOption[]): PackOption | null {
  const priced = options.filter(
    ({ addedWh, addedMinor }) => addedWh > 0 && addedMinor !== null && addedMinor > 0,
  );
  return priced.reduce<PackOption | null>(
    (best, each) =>
      best === null || there(each.addedMinor) / each.addedWh < there(best.addedMinor) / best.addedWh
        ? each
        : best,
    null,
  );
}
