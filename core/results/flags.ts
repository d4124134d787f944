import type { LedgerInput } from "#core/ledger";
import { solveLedger } from "#core/ledger";
import type { LoggedReading } from "#core/log";

/** Standing, in sds, over which a reading is questioned. */
export const QUESTION_ABOVE = 3;

/**
 * Questions readings one at a time: the largest |z| over 3, then the ledger again without it (a slip pushes innocent
 * readings over 3 as well). Nothing is set aside: the answer still holds every reading that was not struck.
 *
 * @param build makes the ledger's input from the readings to count
 * @returns the questioned readings, first found first, with their standing
 */
export function questioned(
  readings: readonly LoggedReading[],
  build: (counted: readonly LoggedReading[]) => LedgerInput,
): readonly { readonly reading: LoggedReading; readonly standing: number }[] {
  const found: { reading: LoggedReading; standing: number }[] = [];
  let counted = [...readings];
  while (counted.length > 2 && found.length < 10) {
    const solved = solveLedger(build(counted));
    if (!solved.ok) break;
    const standings = solved.value.posterior.looStandardised();
    let worst = 0;
    standings.forEach((z, i) => {
      if (Math.abs(z) > Math.abs(standings[worst]!)) worst = i;
    });
    if (!(Math.abs(standings[worst]!) > QUESTION_ABOVE)) break;
    found.push({ reading: counted[worst]!, standing: standings[worst]! });
    counted = counted.filter((_, i) => i !== worst);
  }
  return found;
}
