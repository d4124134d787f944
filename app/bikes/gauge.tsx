import { lazy, type ReactNode } from "react";
import { Form, href, Link, redirect } from "react-router";
import { dbContext } from "#app/context";
import { digestsOf } from "#app/services/analysis.server";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { fixed, formatQuantity, halfWidth95, unitOf, type Estimate, writeUncertain } from "#core/base";
import {
  gaugeHistory,
  learnedOf,
  stillShown,
  type GaugeHistory,
  type LearnedOfTests,
  type TestDigest,
} from "#core/analysis";
import type { Bike, PackRecord } from "#core/records";
import { findBike, keepLearned, listPacks, type OfBike } from "#db/bikes";
import { listTests, type TestLine } from "#db/tests";
import { Chart } from "#ui/charts/chart";
import { Empty, Page } from "#ui/page";
import { useSystem } from "#ui/system";
import type { Route } from "./+types/gauge";

const GaugeCurve = lazy(() => import("./gaugeCurve"));

const GONE = "There is no such bike.";
/** The newest tests a gauge is learned from. */
const MOST_TESTS = 200;

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  const tests = await listTests(db, { bikeId: bike.id, limit: MOST_TESTS });
  const { digests, pending } = await digestsOf(db, tests);
  const shown = shownBy(tests, digests);
  const taken = takenOf(bike, await listPacks(db, bike.id, { archived: true }));
  return {
    bike,
    pending,
    history: gaugeHistory([...digests.values()], bike.bars),
    learned: { shown: sizeOf(shown), taken: sizeOf(taken), isCurrent: stillShown(shown, taken) },
  };
}

const shownBy = (tests: readonly TestLine[], digests: ReadonlyMap<string, TestDigest>): LearnedOfTests =>
  learnedOf(
    tests.flatMap(({ id, test, packId, secondPackId }) => {
      const digest = digests.get(id);
      return digest ? [{ id, day: test.day, packId, secondPackId, digest }] : [];
    }),
  );

/** What the figures of a bike's tests take of one another now. */
const takenOf = (bike: Bike, packs: readonly OfBike<PackRecord>[]): LearnedOfTests => ({
  display: bike.learned,
  packs: new Map(packs.map(({ id, learned }) => [id, learned])),
});

/** How many tests showed something, of the display and of a pack. */
const sizeOf = ({ display, packs }: LearnedOfTests) => ({
  display: new Set(display.map(({ testId }) => testId)).size,
  packs: new Set([...packs.values()].flat().map(({ testId }) => testId)).size,
});

const NOTHING: LearnedOfTests = { display: [], packs: new Map() };

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  const isTaken = (await request.formData()).get("intent") === "use";
  const tests = await listTests(db, { bikeId: bike.id, limit: MOST_TESTS });
  const shown = isTaken ? shownBy(tests, (await digestsOf(db, tests)).digests) : NOTHING;
  const changed = await keepLearned(db, bike.id, shown);
  const back = href("/bikes/:bikeId/gauge", { bikeId: bike.id });
  return redirect(changed === null ? back : afterChange(back, changed));
}

const percent = ({ mean, sd }: Estimate, digits = 0) =>
  `${fixed(100 * mean, digits)} ± ${fixed(100 * halfWidth95({ mean, sd }), digits)} %`;

const saysCurve = ({ percents }: GaugeHistory) =>
  `Energy left by the percent shown: ${percents.map(({ shown, used }) => `${shown} % shown, ${fixed(100 * (1 - used.mean), 0)} % left`).join("; ")}`;

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-2">{title}</h2>
      {children}
    </section>
  );
}

/** How long each bar truly is: equal only on paper. */
function Bars({ history, bars }: { readonly history: GaugeHistory; readonly bars: number }) {
  const system = useSystem();
  const most = Math.max(...history.bars.map(({ share }) => share.mean));
  return (
    <table className="table w-full">
      <caption className="sr-only">How long each bar truly is</caption>
      <thead>
        <tr>
          <th scope="col">Bar</th>
          <th scope="col" className="w-2/5">
            <span className="sr-only">Length drawn</span>
          </th>
          <th scope="col" className="number">
            of the pack
          </th>
          <th scope="col" className="number">
            Wh
          </th>
          <th scope="col" className="number">
            {unitOf("distance", system)} of an average ride
          </th>
        </tr>
      </thead>
      <tbody>
        {history.bars.map(({ bar, share, wh, wayM }) => (
          <tr key={bar}>
            <th scope="row">{bar === 1 ? "1, the last" : bar}</th>
            <td>
              <div className="h-4 bg-spruce" style={{ width: `${(100 * share.mean) / most}%` }} />
            </td>
            <td className="number">{percent(share)}</td>
            <td className="number">{`${writeUncertain(wh, "energy", system).value} ${writeUncertain(wh, "energy", system).spread}`}</td>
            <td className="number">
              {wayM
                ? `${writeUncertain(wayM, "distance", system).value} ${writeUncertain(wayM, "distance", system).spread}`
                : ""}
            </td>
          </tr>
        ))}
      </tbody>
      <caption className="caption-bottom pt-2 text-left text-sm text-quiet">
        If all {bars} were equal, each would be {fixed(100 / bars, 0)} % of the pack.
      </caption>
    </table>
  );
}

const COUNT_WORDS = { charge: "amp-hours", energy: "watt-hours", volts: "the volts" } as const;
/** A chance from which one says it is so. */
const SURE = 0.9;

function countsSentence(counts: NonNullable<GaugeHistory["counts"]>): string {
  const kinds = Object.keys(COUNT_WORDS) as readonly (keyof typeof COUNT_WORDS)[];
  const likeliest = kinds.reduce((most, kind) => (counts[kind] > counts[most] ? kind : most), kinds[0]!);
  const chance = `${fixed(100 * counts[likeliest], 0)} %`;
  return counts[likeliest] >= SURE
    ? `It follows ${COUNT_WORDS[likeliest]}: ${chance} likely by its tests.`
    : `Its tests do not tell what it follows: ${kinds.map((kind) => `${COUNT_WORDS[kind]} ${fixed(100 * counts[kind], 0)} %`).join(", ")}.`;
}

/** What stands out: where it stands still or jumps, what is left when it blinks, what it shows at the end. */
function Habits({ history }: { readonly history: GaugeHistory }) {
  const system = useSystem();
  const way = (metres: number) => formatQuantity(metres, "distance", system);
  const lines = [
    ...history.quirks.map(({ kind, percent: at, overM, points }) =>
      kind === "stands"
        ? `Stood at ${at} % for ${way(overM)}.`
        : `Fell ${points} points from ${at} % within ${way(overM)}.`,
    ),
    ...history.blinkToEndM.map((metres) => `${way(metres)} were left when the last bar began to blink.`),
    ...history.percentsAtCutOff.map((at) => `Showed ${fixed(at, 0)} % as the pack cut off.`),
    ...(history.rebounds
      ? [`Bars came back at rest ${history.rebounds === 1 ? "once" : `${history.rebounds} times`}.`]
      : []),
    ...(history.counts ? [countsSentence(history.counts)] : []),
    ...(history.odometer
      ? [
          `Its distance times ${fixed(history.odometer.mean, 3)} ± ${fixed(halfWidth95(history.odometer), 3)} is the recorder's.`,
        ]
      : ["Its distance was never checked against a recorder."]),
  ];
  return (
    <ul className="grid list-disc gap-1 pl-5">
      {[...new Set(lines)].map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}

/** Points of the gauge, with what was assumed before. */
function Points({ points }: { readonly points: GaugeHistory["points"] }) {
  return (
    <table className="table w-full">
      <caption className="sr-only">Points of the gauge, with what was assumed before</caption>
      <thead>
        <tr>
          <th scope="col">Where</th>
          <th scope="col" className="number">
            used there
          </th>
          <th scope="col" className="number">
            assumed
          </th>
          <th scope="col" className="number">
            tests
          </th>
        </tr>
      </thead>
      <tbody>
        {points.map(({ name, used, prior, tests }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className="number">{percent(used)}</td>
            <td className="number pencil">{percent(prior)}</td>
            <td className="number">{tests}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const testsText = (count: number) => (count === 1 ? "one test" : `${count} tests`);

/** Whether the bike's tests take what the others showed, and the button to have it so. */
function Learned({ shown, taken, isCurrent }: Route.ComponentProps["loaderData"]["learned"]) {
  const isInUse = taken.display + taken.packs > 0;
  if (shown.display + shown.packs === 0 && !isInUse) return null;
  const parts = ({ display, packs }: typeof shown) =>
    [
      display > 0 ? `the gauge by ${testsText(display)}` : "",
      packs > 0 ? `the pack by ${testsText(packs)}` : "",
    ]
      .filter(Boolean)
      .join(", ");
  return (
    <section aria-label="In the figures of this bike's tests" className="lg:col-span-2">
      <h2 className="mb-2">In the figures of this bike's tests</h2>
      <p>
        {isInUse
          ? `In use: ${parts(taken)}. Each test takes what the others showed, and not its own.`
          : `Known: ${parts(shown)}. Each test's figure rests on its own readings alone.`}
        {isInUse && !isCurrent ? ` The tests now show: ${parts(shown) || "nothing of either"}.` : ""}
      </p>
      <Form method="post" className="mt-2 flex flex-wrap gap-2">
        {isCurrent && isInUse ? null : (
          <button name="intent" value="use" className="button">
            {isInUse ? "Update" : "Use in all figures"}
          </button>
        )}
        {isInUse ? (
          <button name="intent" value="stop" className="button">
            Stop using
          </button>
        ) : null}
      </Form>
    </section>
  );
}

/** What a bike's gauge says against what is truly left, learned over its tests. */
export default function GaugePage({ loaderData: { bike, history, learned, pending } }: Route.ComponentProps) {
  const half = history?.percents.find(({ shown }) => shown === 50);
  return (
    <Page
      title={`${bike.name}, gauge`}
      line={
        history
          ? `Learned from ${history.tests === 1 ? "one test" : `${history.tests} tests`} of this bike.`
          : "Learned from this bike's tests."
      }
      next={
        <Link to={href("/bikes/:bikeId", { bikeId: bike.id })} className="button">
          The bike
        </Link>
      }
    >
      {history ? (
        <div
          className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 lg:grid-cols-2"
          data-pending={pending || undefined}
        >
          {history.percents.length ? (
            <Part title="What the percent means">
              <Chart height={270} className="max-w-lg" label={saysCurve(history)}>
                <GaugeCurve history={history} />
              </Chart>
              {half ? (
                <p className="mt-2">
                  At half the gauge {percent({ mean: 1 - half.used.mean, sd: half.used.sd })} of the energy is
                  left.
                </p>
              ) : null}
            </Part>
          ) : null}
          {history.bars.length ? (
            <Part title="How long each bar is">
              <Bars history={history} bars={bike.bars} />
            </Part>
          ) : bike.bars > 0 ? (
            <Part title="How long each bar is">
              <p className="text-quiet">Not told yet: note each bar as it goes, over a test or two.</p>
            </Part>
          ) : null}
          <Part title="What it does">
            <Habits history={history} />
          </Part>
          {history.points.length ? (
            <Part title="Points of the gauge">
              <Points points={history.points} />
            </Part>
          ) : null}
          <Learned {...learned} />
          <p className="text-sm text-quiet lg:col-span-2">
            A pack's last percents are its least sure: plan the way home on the reserve, not on the gauge.
          </p>
        </div>
      ) : (
        <div className="p-4 md:p-6">
          <Empty
            step={
              <Link to={`${href("/strip/new")}?bike=${bike.id}`} className="button button-main">
                New test
              </Link>
            }
          >
            Nothing is known of this gauge yet. It is learned from tests: percent, bars as they go, how it
            ended.
          </Empty>
        </div>
      )}
    </Page>
  );
}
