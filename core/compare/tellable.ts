import { there, nth, DEFAULTS } from "#core/base";
import { conditionsOfTest, type RiddenRide } from "#core/bike";
import {
  DAY_UNKNOWNS,
  dayOfTest,
  type DayUnknown,
  type DeskPosterior,
  type Hypothetical,
  type SolvedDay,
  type Taking,
} from "#core/desk";
import { deskDayOf, type Compared } from "./compared.ts";

/** Something that could still be typed, measured or ridden of a test, as a change of the desk's readings. */
export interface Tellable {
  readonly what: string;
  /** Of which test. */
  readonly testId: string;
  readonly minutes: number;
  /** A reading of its own, or one that takes the place of what the test reads now. */
  readonly taking: Taking;
}

interface Option {
  readonly what: string;
  readonly minutes: number;
  /** What is left of the doubt of some of the day's unknowns, as a share. */
  readonly leaves?: Partial<Record<DayUnknown, number>>;
  /** Kinds of shared unknowns that the reading would no longer lean on. */
  readonly without?: readonly string[];
  /** The reading's own sd, as a share of it. */
  readonly sdShare?: number;
}

/** What could still be typed, measured or fetched of a test that was ridden. */
function optionsFor(
  { conditions, climbBy, stopsCounted }: RiddenRide,
  { ridden }: Compared,
): readonly Option[] {
  const { speedSdShare, riderBy, riderSdShare, windSdMps, massSdShare } = conditions;
  const found: (Option | null)[] = [
    speedSdShare > DEFAULTS.speedHeldSdShare
      ? {
          what: "type the riding time or the mean speed off the display",
          minutes: DEFAULTS.typeMinutes,
          leaves: { speed: DEFAULTS.speedHeldSdShare / speedSdShare },
        }
      : null,
    riderBy === "word" || riderBy === "nothing"
      ? {
          what: "ride with a heart-rate strap and the rider's own line, or a power meter",
          minutes: DEFAULTS.strapMinutes,
          leaves: { rider: DEFAULTS.riderHeartSdShare / riderSdShare },
          without: ["habit"],
        }
      : null,
    climbBy === "track"
      ? null
      : {
          what: "import the track with its heights",
          minutes: DEFAULTS.trackMinutes,
          leaves: {
            climb:
              DEFAULTS.climbTrackSdShare /
              (climbBy === "typed" ? DEFAULTS.climbTypedSdShare : DEFAULTS.climbGuessLnSd),
          },
        },
    windSdMps > DEFAULTS.windSdMps
      ? {
          what: "type the wind",
          minutes: DEFAULTS.typeMinutes,
          leaves: { wind: DEFAULTS.windSdMps / windSdMps },
        }
      : null,
    stopsCounted
      ? null
      : {
          what: "type how often it stopped",
          minutes: DEFAULTS.typeMinutes,
          leaves: { stops: DEFAULTS.stopsCountedSdShare / DEFAULTS.stopsSdShare },
        },
    massSdShare > DEFAULTS.massSdShare
      ? {
          what: `weigh ${[ridden.bike.massKg === undefined ? "the bike" : "", ridden.rider?.massKg === undefined ? "the rider" : ""].filter(Boolean).join(" and ")}`,
          minutes: DEFAULTS.weighMinutes,
          leaves: { weight: DEFAULTS.massSdShare / massSdShare },
        }
      : null,
    {
      what: "read a wall meter over a full charge",
      minutes: DEFAULTS.refillMinutes,
      without: ["capacity"],
      sdShare: DEFAULTS.wallOnceSdShare,
    },
  ];
  return found.filter((option) => option !== null);
}

/** A test's reading as it is, with what is left of its day's doubt. */
function readingOf(
  solved: SolvedDay,
  { leaves = {}, without = [], sdShare }: Omit<Option, "what" | "minutes">,
): Hypothetical {
  const { day, linearised, widened } = solved;
  const [measured] = day.measured;
  const own = nth(linearised.byOwn, 0).reduce(
    (sum, slope, k) => sum + (slope * (leaves[nth(DAY_UNKNOWNS, k)] ?? 1)) ** 2,
    0,
  );
  const sd =
    sdShare === undefined ? there(measured).sd : Math.min(there(measured).sd, sdShare * there(measured).mean);
  return {
    day,
    slopes: day.shared.map(({ kind }, k) =>
      without.includes(kind) ? 0 : nth(nth(linearised.byShared, 0), k),
    ),
    variance: widened * widened * (sd * sd + own),
  };
}

/** A run of the same bike on the throttle alone, as it would read. */
function throttleRun(desk: DeskPosterior, compared: Compared): Hypothetical | null {
  const { ridden } = compared;
  if (!ridden.bike.throttle || ridden.test.drive === "throttle") return null;
  const { best } = ridden.results;
  const day = dayOfTest({
    ...compared,
    ridden: { ...ridden, test: { ...ridden.test, drive: "throttle" } },
    whPerM: { mean: best.value.mean, sd: DEFAULTS.throttleRunSdShare * best.value.mean },
    capacityShare: 0,
  });
  if (!day) return null;
  const { byShared, byOwn } = day.linearise(
    day.shared.map(({ key }) => desk.valueOf(key)),
    day.own.map(() => 0),
  );
  const own = nth(byOwn, 0).reduce((sum, slope) => sum + slope * slope, 0);
  return { day, slopes: nth(byShared, 0), variance: nth(day.measured, 0).sd ** 2 + own };
}

const rideMinutes = ({ ridden: { results } }: Compared) =>
  results.meanSpeedMps ? results.distance.value.mean / results.meanSpeedMps / 60 : DEFAULTS.rideMinutes;

/**
 * What could still be told of some tests: what nobody typed or weighed yet, a wall meter, a run on the throttle, the same
 * ride once more.
 */
export function tellableOf(desk: DeskPosterior, tests: readonly Compared[]): readonly Tellable[] {
  const byId = new Map(desk.days.map((solved) => [solved.day, solved]));
  return tests.flatMap((compared): readonly Tellable[] => {
    const day = deskDayOf(compared);
    const solved = day && byId.get(day);
    const ride = conditionsOfTest(compared.ridden);
    if (!solved || !ride) return [];
    const asRead = readingOf(solved, {});
    const tell = (what: string, minutes: number, added: Hypothetical, instead?: Hypothetical): Tellable => ({
      ...{ what, minutes, testId: compared.id },
      taking: { added, instead },
    });
    const run = throttleRun(desk, compared);
    return [
      ...optionsFor(ride, compared).map((option) =>
        tell(option.what, option.minutes, readingOf(solved, option), asRead),
      ),
      ...(run ? [tell("ride it on the throttle alone", DEFAULTS.throttleRunMinutes, run)] : []),
      tell("ride it once more", rideMinutes(compared), asRead),
    ];
  });
}
