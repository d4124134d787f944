import { href, Link } from "react-router";
import { deskDay } from "#app/ui/clock.server";
import { dbContext } from "#app/context";
import { digestsOf } from "#app/services/analysis.server";
import { found, idOf } from "#app/ui/require.server";
import { labelEnergy, usableEnergy } from "#core/battery";
import { packHistory } from "#core/analysis";
import { findBike, listBenches, listBikes, listPacks, listSetUps } from "#db/bikes";
import { countTests, listTests } from "#db/tests";
import type { Unreadable } from "#db/unreadable";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { UnreadableRows } from "#ui/unreadableRows";
import { BikeFacts } from "./bikeFacts";
import { PackCard } from "./packCard";
import { SetUpRow, TestRow } from "./bikeRows";
import type { Route } from "./+types/bike";
import { Acts, othersThan } from "#ui/acts";

const GONE = "There is no such bike.";

/** Tests that are shown here, the newest first; Strip has them all. */
const MOST_TESTS = 60;

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  const unreadable: Unreadable[] = [];
  const [bikes, packs, setUps, tests, testCount] = await Promise.all([
    listBikes(db),
    listPacks(db, bike.id, { unreadable }),
    listSetUps(db, bike.id, { unreadable }),
    listTests(db, { bikeId: bike.id, limit: MOST_TESTS, unreadable }),
    countTests(db, { bikeId: bike.id }),
  ]);
  const { digests, pending } = await digestsOf(db, tests);
  const benches = await Promise.all(packs.map(({ id }) => listBenches(db, id, unreadable)));
  return {
    bike,
    others: othersThan(bike.id, bikes),
    setUps,
    testCount,
    pending,
    unreadable,
    packs: packs.map((pack, i) => {
      const [label, usable] = [labelEnergy(pack), usableEnergy({ ...pack, packTempC: 25 })];
      const alone = tests.flatMap(({ id, packId, secondPackId, test }) => {
        const digest = digests.get(id);
        return packId === pack.id && secondPackId === null && digest
          ? [{ day: test.day, learned: digest.packLearned }]
          : [];
      });
      return {
        ...pack,
        benches: benches[i]!,
        label: label.ok ? label.value : null,
        usable: usable.ok ? usable.value : null,
        history: packHistory(pack, alone, deskDay()),
      };
    }),
    tests: tests.map((line) => ({
      id: line.id,
      test: line.test,
      setUpName: line.setUpName,
      whPerM: digests.get(line.id)?.best.value ?? null,
    })),
  };
}

type Data = Route.ComponentProps["loaderData"];

/** The newest tests of the bike. */
function Tests({
  bikeId,
  tests,
  testCount,
}: {
  readonly bikeId: string;
  readonly tests: Data["tests"];
  readonly testCount: number;
}) {
  return (
    <section>
      <h2 className="mb-2">Tests</h2>
      {testCount > tests.length ? (
        <p className="mb-2 text-quiet">
          The newest {tests.length} of {testCount}.{" "}
          <Link to={`${href("/strip")}?bike=${bikeId}`}>All of them</Link>
        </p>
      ) : null}
      <table className="table w-full">
        <caption className="sr-only">Set-ups</caption>
        <tbody>
          {tests.map((test) => (
            <TestRow key={test.id} {...test} />
          ))}
        </tbody>
      </table>
      {tests.length === 0 ? <p className="text-quiet">No test of this bike yet.</p> : null}
    </section>
  );
}

export default function BikePage({
  loaderData: { bike, others, packs, setUps, tests, testCount, unreadable },
}: Route.ComponentProps) {
  return (
    <Page
      title={bike.name}
      line={bike.what}
      what="pencil"
      acts={
        <Acts
          kind="bike"
          id={bike.id}
          name={bike.name}
          list={href("/bikes")}
          archived={bike.archived}
          others={others}
        />
      }
      next={
        packs.length ? (
          <div className="flex gap-3">
            <Link to={`${href("/plan/new")}?bike=${bike.id}`} className="button button-main">
              Plan a test
            </Link>
            <Link to={`${href("/strip/new")}?bike=${bike.id}`} className="button">
              New test
            </Link>
          </div>
        ) : (
          <Link
            to={href("/bikes/:bikeId/packs/:packId", { bikeId: bike.id, packId: "new" })}
            className="button button-main"
          >
            Add its pack
          </Link>
        )
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="grid content-start gap-8">
          <UnreadableRows rows={unreadable} />
          <section>
            <div className="mb-2 flex items-center justify-between">
              <h2>Packs</h2>
              <Link to={href("/bikes/:bikeId/packs/:packId", { bikeId: bike.id, packId: "new" })}>
                Add a pack
              </Link>
            </div>
            <div className="grid gap-3 sm:grid-cols-2">
              {packs.map((pack) => (
                <PackCard key={pack.id} bikeId={bike.id} pack={pack} />
              ))}
              {packs.length === 0 ? <p className="text-quiet">No pack yet: a test needs one.</p> : null}
            </div>
          </section>
          <section>
            <div className="mb-2 flex items-center justify-between">
              <h2>Set-ups</h2>
              <Link to={href("/bikes/:bikeId/set-ups/:setUpId", { bikeId: bike.id, setUpId: "new" })}>
                Add a set-up
              </Link>
            </div>
            <table className="table w-full">
              <caption className="sr-only">Tests of this bike</caption>
              <tbody>
                {setUps.map((setUp) => (
                  <SetUpRow key={setUp.id} bikeId={bike.id} setUp={setUp} />
                ))}
              </tbody>
            </table>
            {setUps.length === 0 ? (
              <p className="text-quiet">
                No set-up noted. Tyres, pressure, lights and load change the figure.
              </p>
            ) : null}
          </section>
          <Tests bikeId={bike.id} tests={tests} testCount={testCount} />
        </div>
        <BikeFacts bike={bike} />
      </div>
      <div className="px-4 pb-6 md:px-6">
        <History kind="bike" id={bike.id} />
      </div>
    </Page>
  );
}
