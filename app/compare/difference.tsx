import { lessText, type JointPair } from "#core/compare";
import { formatBare, writeUncertain, type Estimate } from "#core/base";
import { useSystem } from "#ui/system";

const signed = (text: string, value: number) => (value > 0 ? `+${text}` : text);

/** A difference as the one large figure of its page. */
export function Difference({ difference }: { readonly difference: Estimate }) {
  const system = useSystem();
  const { value, error, unit } = writeUncertain(difference, "energyPerDistance", system, true);
  return (
    <>
      <p className="mt-3 text-4xl leading-none font-bold">{signed(value, difference.mean)}</p>
      <p className="text-lg">
        ± {error} <span className="text-sm text-quiet">{unit}</span>
      </p>
    </>
  );
}

interface Named {
  readonly bike: string;
  readonly title: string;
}

/** Who used less, and how sure that is. A and B by their bikes, or by their tests where the bike is the same. */
export function verdictOf({ whole }: JointPair, [a, b]: readonly [Named, Named]): string {
  const nameOf = ({ bike, title }: Named) => (bike && a.bike !== b.bike ? bike : bike ? `“${title}”` : title);
  return lessText(whole.chanceA, nameOf(a), nameOf(b), "used");
}

/** A difference in a table: with its sign. */
export function useSigned() {
  const system = useSystem();
  return (value: Estimate) => {
    const { value: text, error } = writeUncertain(value, "energyPerDistance", system, true);
    return `${signed(text, value.mean)} ± ${error}`;
  };
}

/** A bare signed figure. */
export function useBareSigned() {
  const system = useSystem();
  return (whPerM: number) => signed(formatBare(whPerM, "energyPerDistance", system, 2), whPerM);
}
