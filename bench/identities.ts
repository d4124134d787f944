import { analyseTest } from "#core/analysis";
import { jointPair, type PairedTest } from "#core/compare";
import { REFERENCES } from "#core/bike";
import { DESK_TOLD, type DeskTest } from "#core/world";
import { brokenIdentities } from "#tests/identities";
import { worldDesk } from "#tests/world";

const HOUSE = REFERENCES[0]!;
/** Two figures that are one differ by no more, as a share. */
const SAME = 1e-9;

/** Desks tried, and what of each did not agree with itself: "desk 3, test 2: range = ridden + left". */
export interface IdentitiesFound {
  readonly desks: number;
  readonly tests: number;
  readonly pairs: number;
  readonly broken: readonly string[];
}

const paired = ({ bike, record }: DeskTest, side: PairedTest["side"]): PairedTest => ({
  ...{ id: String(bike), bikeId: String(bike), packId: String(bike), secondPackId: null },
  ...{ record, side },
});

/** A pair's two figures are those of the tests' pages, and their difference is the pair's. */
function brokenPair([a, b]: readonly [DeskTest, DeskTest]): readonly string[] {
  const [own, other] = [analyseTest(a.record), analyseTest(b.record)];
  const pair = jointPair([paired(a, "A"), paired(b, "B")]);
  if (!own.ok || !other.ok || !pair.ok) return [];
  const { whole } = pair.value;
  const isSame = (x: number, y: number) => Math.abs(x - y) <= SAME * Math.abs(y);
  const { mean } = own.value.best.value;
  return [
    ...(isSame(whole.a.mean, mean) ? [] : ["a pair's A is its test's"]),
    ...(isSame(whole.b.mean, other.value.best.value.mean) ? [] : ["a pair's B is its test's"]),
    ...(Math.abs(whole.difference.mean - (whole.a.mean - whole.b.mean)) <= SAME * mean
      ? []
      : ["a pair's difference is A less B"]),
  ];
}

/** Desks with seeds from 1, told in turn as the trial's are: every test against itself, and the first two as a pair. */
export function identities(desks: number): IdentitiesFound {
  const found = { desks, tests: 0, pairs: 0, broken: [] as string[] };
  for (let seed = 1; seed <= desks; seed += 1) {
    const told = DESK_TOLD[seed % DESK_TOLD.length]!;
    const { tests } = worldDesk(seed, { bikes: 3, riders: 2, testsEach: 1, told }, HOUSE);
    tests.forEach(({ record }, i) => {
      const results = analyseTest(record);
      if (!results.ok) return;
      found.tests += 1;
      found.broken.push(
        ...brokenIdentities(results.value).map((each) => `desk ${seed}, test ${i + 1}: ${each}`),
      );
    });
    const [a, b] = tests;
    if (!a || !b) continue;
    found.pairs += 1;
    found.broken.push(...brokenPair([a, b]).map((each) => `desk ${seed}: ${each}`));
  }
  return found;
}
