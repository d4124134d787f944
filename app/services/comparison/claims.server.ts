import {
  claimReport,
  inMeasure,
  optionRange,
  packOptions,
  pooledTraced,
  underReference,
  untraced,
  type ClaimReport,
  type PackOption,
} from "#core/compare";
import { labelEnergy, temperatureFactor } from "#core/pack";
import { roadOf } from "#core/plan";
import { runningCost } from "#core/projection";
import { scale, type Uncertain } from "#core/quantities";
import { conditionsFor, referenceName, type Reference } from "#core/roadload";
import type { Database } from "#db/client";
import {
  bikesOnTwo,
  comparedTests,
  newestAlone,
  ridingOf,
  soundTests,
  type ComparedTest,
} from "./desk.server";

/** A larger or smaller pack: what it makes of the range, and what a mile more costs. */
export interface OptionRange {
  readonly option: PackOption;
  readonly addedM: number;
  /** Minor units per metre; null without a price. */
  readonly perMetreMinor: number | null;
}

/** A bike and how it drives, against its claims. */
export interface ClaimedBike {
  readonly bikeId: string;
  readonly bike: string;
  readonly drive: string;
  readonly tests: number;
  readonly whPerM: Uncertain;
  readonly range: Uncertain;
  readonly plainM: number | null;
  readonly packName: string;
  readonly reports: readonly ClaimReport[];
  readonly options: readonly OptionRange[];
  readonly currency: string;
  /** Minor units per metre. */
  readonly cost: Uncertain;
}

const mean = (values: readonly number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;

/** Every bike with its claims under one reference; those that cannot be brought there, with why. */
export async function claimedBikes(db: Database, reference: Reference, tariffMinor: number) {
  const { tests, shelf } = await comparedTests(db);
  const runsTwo = bikesOnTwo(tests);
  const groups = new Map<string, ComparedTest[]>();
  for (const each of tests) {
    const key = `${each.line.bikeId}/${each.line.test.drive}`;
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  const left: { bike: string; why: string }[] = [];
  const claimed = [...groups.values()].flatMap((all): readonly ClaimedBike[] => {
    const group = soundTests(all);
    const newest = newestAlone(all);
    const { line, digest, pack, compared } = newest!;
    const riding = ridingOf(shelf, line)!;
    const under = group.flatMap((each) => {
      const found = underReference(each.compared, reference);
      if (!found.ok && each === group[0])
        left.push({ bike: line.bikeName, why: found.problems[0]!.sentence });
      return found.ok ? [found.value] : [];
    });
    if (under.length === 0) return [];
    const traced = pooledTraced(under.map((each) => each.traced));
    const whPerM = untraced(traced);
    const { tempC = 25 } = reference.conditions;
    const capacity = scale(digest.packLearned.after, temperatureFactor(pack.chemistry, tempC));
    const ranged = inMeasure("rangeOwn", traced, {
      packId: line.packId,
      capacity,
      climbPerM: null,
      option: null,
      commonWh: 0,
    });
    if (!ranged.ok) return [];
    const range = untraced(ranged.value);
    const label = labelEnergy(pack);
    const throttle = line.test.drive === "throttle";
    const reports = riding.bike.claims
      .filter(({ mode }) => /throttle/i.test(mode) === throttle)
      .flatMap((claim) => {
        const report = claimReport(claim, {
          labelWh: label.ok ? label.value : capacity.mean,
          whPerM,
          range,
          lambda: mean(under.map(({ lambda }) => lambda)),
          reference: referenceName(reference),
          conditions: conditionsFor(reference, compared.bikeKg, throttle),
          bike: {
            ...roadOf(riding),
            ...(throttle ? {} : { assistToMps: riding.bike.assistToMps }),
          },
        });
        return report.ok ? [report.value] : [];
      });
    const others = [...shelf.packs.values()].filter(
      ({ id, bikeId }) => bikeId === line.bikeId && id !== line.packId,
    );
    const plains = group.flatMap((each) => each.digest.plain?.rangeM ?? []);
    return [
      {
        bikeId: line.bikeId,
        bike: line.bikeName,
        drive: line.test.drive,
        tests: group.length,
        whPerM,
        range,
        plainM: plains.length ? mean(plains) : null,
        packName: pack.name,
        reports,
        options: packOptions(pack, others, runsTwo.has(line.bikeId)).map((option) => ({
          option,
          ...optionRange(option, whPerM.mean),
        })),
        currency: riding.bike.currency,
        cost: runningCost(whPerM, tariffMinor),
      },
    ];
  });
  return { claimed: claimed.sort((a, b) => a.bike.localeCompare(b.bike)), left };
}
