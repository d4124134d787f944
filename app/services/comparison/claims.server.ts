import {
  asRidden,
  broughtTo,
  capacityUnder,
  claimReport,
  inMeasure,
  isClaimFor,
  onPack as packEnergy,
  optionRange,
  packOptions,
  weightedMean,
  statedConditions,
  subjectOf,
  normaliseTo,
  combine,
  type ClaimReport,
  type PackOption,
  type RangeUnder,
  type Settling,
  type ErrorComponents,
  whatWouldSettle,
} from "#core/compare";
import { bikeMass, conditionsFor, referenceName, roadOf, type Reference } from "#core/bike";
import type { DeskPosterior } from "#core/desk";
import { labelEnergy, temperatureFactor } from "#core/battery";
import { runningCost } from "#core/analysis/projection";
import { certaintyOf, scale, type Estimate, meanOf } from "#core/base";
import type { Database } from "#db/client";
import {
  bikesOnTwo,
  comparedTests,
  newestAlone,
  ridingOf,
  soundTests,
  titleOf,
  type ComparedTest,
} from "./desk.server";

/** A larger or smaller pack: what it makes of the range, and what a mile more costs. */
export interface OptionRange {
  readonly option: PackOption;
  /** The range with it, and what that is more or less, m. */
  readonly rangeM: number;
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
  readonly whPerM: Estimate;
  readonly range: Estimate;
  /** As ridden; null where no test tells it. */
  readonly ridden: Estimate | null;
  readonly plainM: number | null;
  readonly packName: string;
  readonly reports: readonly ClaimReport[];
  readonly options: readonly OptionRange[];
  /** What would decide a claim that is not sure; empty where all are. */
  readonly settles: readonly (Settling & { readonly test: string })[];
  /** Sd of the range under the reference, m. */
  readonly rangeSd: number;
  readonly currency: string;
  /** Minor units per metre. */
  readonly cost: Estimate;
}

/** Things that would settle a claim, as many as a line names. */
const MOST_SETTLING = 3;

const rangeOn = (capacity: ErrorComponents, whPerM: ErrorComponents): ErrorComponents | null => {
  const found = inMeasure("rangeOwn", whPerM, { capacity, climbPerM: null, option: null, commonWh: 0 });
  return found.ok ? found.value : null;
};

/** The range as ridden, on the pack and day of each test, in the mode of a claim where it names a level that was ridden. */
function riddenRange(group: readonly ComparedTest[], mode: string): Estimate | null {
  const ranges = group.flatMap(({ compared, digest }): readonly ErrorComponents[] => {
    const level = compared.ridden.bike.levels.find(
      (each) => each.toLowerCase() === mode.trim().toLowerCase(),
    );
    // Of the whole ride it is the range that the test's own page has.
    const { rangeTotal } = digest;
    if (level === undefined)
      return rangeTotal
        ? [{ mean: rangeTotal.value.mean, effects: { [`measured:${compared.id}`]: rangeTotal.value.sd } }]
        : [];
    const figure = asRidden(compared, (own) => own === level);
    if (!figure.ok) return [];
    const range = rangeOn(packEnergy(compared.packId, digest.capacity.value), figure.value);
    return range ? [range] : [];
  });
  return ranges.length ? combine(weightedMean(ranges)) : null;
}

/** The range under some conditions, by the desk. */
function broughtRange(
  desk: DeskPosterior,
  newest: ComparedTest,
  reference: Reference,
): ErrorComponents | null {
  const { compared, digest, pack } = newest;
  const { tempC = 25 } = reference.conditions;
  const usable = scale(digest.packLearned.after, temperatureFactor(pack.chemistry, tempC));
  const { traced } = broughtTo(desk, subjectOf(compared), reference);
  return rangeOn(capacityUnder(desk, compared, usable), traced);
}

/** Whether the last of a claim's lines, under the reference, is less than sure. */
const isOpen = ({ lines }: ClaimReport) => certaintyOf(lines.at(-1)!.chanceLow) !== "sure";

interface Reporting {
  readonly riding: NonNullable<ReturnType<typeof ridingOf>>;
  readonly group: readonly ComparedTest[];
  readonly newest: ComparedTest;
  readonly posterior: DeskPosterior;
  readonly reference: Reference;
  /** Under the reference, m. */
  readonly range: Estimate;
  /** Under the reference, Wh per metre. */
  readonly whPerM: Estimate;
  readonly throttle: boolean;
}

/** What is said of each claim of a bike that is for how it was driven. */
function reportsOf(given: Reporting): readonly ClaimReport[] {
  const { riding, group, newest, posterior, reference, range, whPerM, throttle } = given;
  const label = labelEnergy(newest.pack);
  return riding.bike.claims
    .filter((claim) => isClaimFor(claim, throttle))
    .map((claim) => {
      const ridden = riddenRange(group, claim.mode);
      const stated = statedConditions(claim.conditions, reference);
      const asStated = stated && broughtRange(posterior, newest, stated);
      const ranges: readonly RangeUnder[] = [
        ...(ridden
          ? [{ under: claim.mode.trim() ? `as ridden, ${claim.mode.trim()}` : "as ridden", range: ridden }]
          : []),
        ...(asStated ? [{ under: "as stated", range: combine(asStated) }] : []),
        { under: `under ${referenceName(reference)}`, range },
      ];
      return claimReport(claim, {
        labelWh: label.ok ? label.value : newest.digest.capacity.value.mean,
        ranges,
        whPerM,
        conditions: conditionsFor(reference, bikeMass(riding.bike), throttle),
        bike: { ...roadOf(riding), ...(throttle ? {} : { assistToMps: riding.bike.assistToMps }) },
      });
    });
}

/** Every bike with its claims under one reference; those that cannot be brought there, with why. */
export async function claimedBikes(db: Database, reference: Reference, tariffMinor: number) {
  const { tests, shelf, posterior } = await comparedTests(db);
  const runsTwo = bikesOnTwo(tests);
  const groups = new Map<string, ComparedTest[]>();
  for (const each of tests) {
    const key = `${each.line.bikeId}/${each.line.test.drive}`;
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  const left: { bike: string; why: string }[] = [];
  const claimed = [...groups.values()].flatMap((all): readonly ClaimedBike[] => {
    const newest = newestAlone(all)!;
    // A range is that of its pack: what was ridden on two together, or on another, is no range of this one.
    const onPack = ({ line: own }: ComparedTest) =>
      own.packId === newest.line.packId && own.secondPackId === newest.line.secondPackId;
    const group = soundTests(all.filter(onPack)).filter(({ digest }) => !digest.best.pencil);
    const { line, pack, compared } = newest;
    const riding = ridingOf(shelf, line)!;
    const under = normaliseTo(posterior, compared, reference);
    const brought = under.ok ? broughtRange(posterior, newest, reference) : null;
    if (!under.ok || !brought) {
      left.push({
        bike: line.bikeName,
        why: under.ok ? "Its pack's energy is not known." : under.problems[0]!.sentence,
      });
      return [];
    }
    const range = combine(brought);
    const { whPerM } = under.value;
    const throttle = line.test.drive === "throttle";
    const reports = reportsOf({ riding, group, newest, posterior, reference, range, whPerM, throttle });
    const others = [...shelf.packs.values()].filter(
      ({ id, bikeId, archived }) =>
        bikeId === line.bikeId && !archived && id !== line.packId && id !== line.secondPackId,
    );
    const plains = group.flatMap((each) => each.digest.plain?.rangeM ?? []);
    const whole = riddenRange(group, "");
    return [
      {
        bikeId: line.bikeId,
        bike: line.bikeName,
        drive: line.test.drive,
        tests: all.length,
        whPerM,
        range,
        ridden: whole,
        plainM: plains.length ? meanOf(plains) : null,
        packName: newest.line.secondPackId ? `${pack.name} and a second one` : pack.name,
        reports,
        settles: reports.some(isOpen)
          ? whatWouldSettle(
              posterior,
              brought,
              tests.filter((each) => each.line.bikeId === line.bikeId).map((each) => each.compared),
            )
              .slice(0, MOST_SETTLING)
              .map((each) => ({ ...each, test: titleOf(tests, each.testId) }))
          : [],
        rangeSd: range.sd,
        options: packOptions(pack, others, runsTwo.has(line.bikeId)).map((option) => ({
          option,
          ...optionRange(option, whPerM.mean, range.mean),
        })),
        currency: riding.bike.currency,
        cost: runningCost(whPerM, tariffMinor),
      },
    ];
  });
  return { claimed: claimed.sort((a, b) => a.bike.localeCompare(b.bike)), left };
}
