import { rideFigure, solveLedger, widening, withSds, type LedgerInput } from "#core/ledger";
import type { LoggedReading } from "#core/log";
import { METRES_PER_MILE, scale, widen, withRelative, type Uncertain } from "#core/quantities";

/** Standing, in sds, over which a reading is questioned. */
export const QUESTION_ABOVE = 3;

/** With more than this in question it is the test, not a reading, that is wrong. */
const MOST_QUESTIONS = 10;

/**
 * Questions readings one at a time: the largest |z| over 3, then the ledger again without it (a slip pushes innocent
 * readings over 3 as well). Nothing is set aside: the answer still holds every reading that was not struck.
 *
 * @param standings of the readings in the ledger that holds them all
 * @param build makes the ledger's input from the readings to count
 * @returns the questioned readings, first found first, with their standing
 */
export function questioned(
  readings: readonly LoggedReading[],
  standings: readonly number[],
  build: (counted: readonly LoggedReading[]) => LedgerInput,
): readonly { readonly reading: LoggedReading; readonly standing: number }[] {
  const found: { reading: LoggedReading; standing: number }[] = [];
  let [counted, z] = [[...readings], standings];
  while (counted.length > 2 && found.length < MOST_QUESTIONS) {
    const worst = z.reduce((far, each, i) => (Math.abs(each) > Math.abs(z[far]!) ? i : far), 0);
    if (!(Math.abs(z[worst]!) > QUESTION_ABOVE)) break;
    found.push({ reading: counted[worst]!, standing: z[worst]! });
    counted = counted.filter((_, i) => i !== worst);
    const solved = solveLedger(build(counted));
    if (!solved.ok) break;
    z = solved.value.posterior.looStandardised();
  }
  return found;
}

/** The whole ride's Wh per metre on fewer readings, widened, with the distance error; null when they contradict. */
export function bestFrom(input: LedgerInput, distanceRelativeSd: number): Uncertain | null {
  const result = solveLedger(input);
  if (!result.ok) return null;
  const [whPerMi] = withSds(result.value, [rideFigure(result.value, 0)]) as [Uncertain];
  const widened = widen(whPerMi, widening(result.value.posterior.chi2PerReading));
  return withRelative(scale(widened, 1 / METRES_PER_MILE), distanceRelativeSd);
}
