import type { ReactNode } from "react";
import { Link } from "react-router";
import { deskDay } from "#app/ui/clock.server";
import { dbContext } from "#app/context";
import { digestsOf } from "#app/services/analysis.server";
import { found, idOf } from "#app/ui/require.server";
import { claimText } from "#app/ui/claim";
import { dayText } from "#app/ui/testLine";
import { labelEnergy, usableEnergy } from "#core/battery";
import { fixed, formatQuantity, formatUncertain } from "#core/base";
import { packHistory } from "#core/analysis";
import { findBike, listBenches, listPacks, listSetUps } from "#db/bikes";
import { countTests, listTests } from "#db/tests";
import type { Unreadable } from "#db/unreadable";
import { Act } from "#ui/act";
import { Figure } from "#ui/figure";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { UnreadableRows } from "#ui/unreadableRows";
import { CapacityChart } from "./capacity";
import type { Route } from "./+types/bike";

const GONE = "There is no such bike.";

/** Tests that are shown here, the newest first; Strip has them all. */
const MOST_TESTS = 60;

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  const unreadable: Unreadable[] = [];
  const [packs, setUps, tests, testCount] = await Promise.all([
    listPacks(db, bike.id, { unreadable }),
    listSetUps(db, bike.id, { unreadable }),
    listTests(db, { bikeId: bike.id, limit: MOST_TESTS, unreadable }),
    countTests(db, { bikeId: bike.id }),
  ]);
  const { digests, pending } = await digestsOf(db, tests);
  const benches = await Promise.all(packs.map(({ id }) => listBenches(db, id, unreadable)));
  return {
    bike,
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

function Fact({
  name,
  pencil = false,
  children,
}: {
  readonly name: string;
  readonly pencil?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <div className="flex justify-between gap-4 border-b border-rule py-2">
      <dt className="text-quiet">{name}</dt>
      <dd className={`text-right ${pencil ? "pencil" : ""}`}>{children}</dd>
    </div>
  );
}

export default function BikePage({
  loaderData: { bike, packs, setUps, tests, testCount, unreadable },
}: Route.ComponentProps) {
  const system = useSystem();
  const assumed = (name: string) => bike.pencil.includes(name);
  const show = (value: number | undefined, write: (value: number) => string, missing: string) =>
    value === undefined ? <span className="pencil">{missing}</span> : write(value);
  return (
    <Page
      title={bike.name}
      line={bike.what}
      next={
        packs.length ? (
          <div className="flex gap-3">
            <Link to={`/plan/new?bike=${bike.id}`} className="button button-main">
              Plan a test
            </Link>
            <Link to={`/strip/new?bike=${bike.id}`} className="button">
              New test
            </Link>
          </div>
        ) : (
          <Link to={`/bikes/${bike.id}/packs/new`} className="button button-main">
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
              <Link to={`/bikes/${bike.id}/packs/new`}>Add a pack</Link>
            </div>
            <div className="grid gap-3 sm:grid-cols-2">
              {packs.map((pack) => (
                <div key={pack.id} className="sheet p-4">
                  <Link to={`/bikes/${bike.id}/packs/${pack.id}`} className="font-bold">
                    {pack.name}
                  </Link>
                  <p className="text-sm text-quiet">
                    {[
                      pack.chemistry,
                      pack.seriesCells && `${pack.seriesCells} cells in series`,
                      pack.ampHours && formatQuantity(pack.ampHours, "charge", system),
                      pack.label && `label ${formatQuantity(pack.label, "energy", system)}`,
                    ]
                      .filter(Boolean)
                      .join(", ")}
                  </p>
                  {pack.usable ? (
                    <p className={`mt-2 ${pack.usable.from === "label" ? "pencil" : ""}`}>
                      {formatUncertain(pack.usable, "energy", system)} usable
                      <span className="text-sm">
                        {pack.usable.from === "label" ? ", assumed from the label" : ", measured"}
                      </span>
                    </p>
                  ) : null}
                  {pack.history ? (
                    <>
                      <CapacityChart history={pack.history} />
                      <p className="mt-1 text-sm text-quiet">{pack.history.sentence}</p>
                    </>
                  ) : null}
                  <ul className="mt-2 text-sm">
                    {pack.benches.map((bench) => (
                      <li key={bench.id}>
                        <Link to={`/bikes/${bike.id}/packs/${pack.id}/bench/${bench.id}/sheet`}>
                          Bench sheet, {dayText(bench.on)}
                        </Link>
                      </li>
                    ))}
                    <li>
                      <Link to={`/bikes/${bike.id}/packs/${pack.id}/bench/new`}>Record a bench test</Link>
                    </li>
                  </ul>
                </div>
              ))}
              {packs.length === 0 ? <p className="text-quiet">No pack yet: a test needs one.</p> : null}
            </div>
          </section>
          <section>
            <div className="mb-2 flex items-center justify-between">
              <h2>Set-ups</h2>
              <Link to={`/bikes/${bike.id}/set-ups/new`}>Add a set-up</Link>
            </div>
            <table className="table w-full">
              <tbody>
                {setUps.map((setUp) => (
                  <tr key={setUp.id}>
                    <td>
                      <Link to={`/bikes/${bike.id}/set-ups/${setUp.id}`}>{setUp.name}</Link>
                      <div className="text-sm text-quiet">{setUp.tyre}</div>
                    </td>
                    <td className="text-sm">
                      {[
                        setUp.pressurePa === undefined
                          ? "pressure not noted"
                          : formatQuantity(setUp.pressurePa, "pressure", system),
                        setUp.lightsOn ? "lights on" : "lights off",
                        setUp.since ? `since ${dayText(setUp.since)}` : "",
                        setUp.changed,
                        setUp.carriedKg
                          ? `carries ${formatQuantity(setUp.carriedKg, "mass", system, 0)}`
                          : "",
                      ]
                        .filter(Boolean)
                        .join(", ")}
                    </td>
                    <td className="number text-sm">
                      <Act kind="setUp" id={setUp.id} intent="duplicate" name={setUp.name} />
                      <Act
                        kind="setUp"
                        id={setUp.id}
                        intent="archive"
                        to={`/bikes/${bike.id}`}
                        name={setUp.name}
                      />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {setUps.length === 0 ? (
              <p className="text-quiet">
                No set-up noted. Tyres, pressure, lights and load change the figure.
              </p>
            ) : null}
          </section>
          <section>
            <h2 className="mb-2">Tests</h2>
            {testCount > tests.length ? (
              <p className="mb-2 text-quiet">
                The newest {tests.length} of {testCount}.{" "}
                <Link to={`/strip?bike=${bike.id}`}>All of them</Link>
              </p>
            ) : null}
            <table className="table w-full">
              <tbody>
                {tests.map(({ id, test, setUpName, whPerM }) => (
                  <tr key={id}>
                    <td>
                      <Link to={`/strip/${id}`}>{test.title}</Link>
                      <div className="text-sm text-quiet">
                        {[test.school, test.drive, setUpName, dayText(test.day)].filter(Boolean).join(", ")}
                      </div>
                    </td>
                    <td className="number">
                      {whPerM ? (
                        <Figure value={whPerM} dimension="energyPerDistance" />
                      ) : (
                        <span className="text-quiet">nothing to reckon yet</span>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {tests.length === 0 ? <p className="text-quiet">No test of this bike yet.</p> : null}
          </section>
        </div>
        <aside className="sheet h-fit p-4">
          <div className="flex items-center justify-between">
            <h2>Facts</h2>
            <Link to={`/bikes/${bike.id}/edit`}>Change</Link>
          </div>
          <p className="mb-1 text-sm">
            <Link to={`/bikes/${bike.id}/gauge`}>What its gauge really says</Link>
          </p>
          <dl>
            <Fact name="Weight">
              {show(bike.massKg, (kg) => formatQuantity(kg, "mass", system), "not weighed")}
              {bike.massWithoutPackKg === undefined ? null : (
                <div className="text-sm text-quiet">
                  {formatQuantity(bike.massWithoutPackKg, "mass", system)} without its pack
                </div>
              )}
            </Fact>
            <Fact name="Motor" pencil={assumed("motor")}>
              {bike.motor === "hub" ? "hub motor" : "mid motor"}
              {bike.motorW === undefined ? "" : `, ${bike.motorW} W`}
              {bike.sensor === "not noted" ? "" : `, ${bike.sensor} sensor`}
            </Fact>
            <Fact name="Assist stops at" pencil={assumed("assistToMps")}>
              {show(bike.assistToMps, (mps) => formatQuantity(mps, "speed", system), "not noted")}
            </Fact>
            <Fact name="Levels" pencil={assumed("levels")}>
              {bike.levels
                .map((name, i) =>
                  bike.levelShares.length ? `${name} ${fixed(100 * bike.levelShares[i]!, 0)} %` : name,
                )
                .join(", ")}
              {bike.throttle ? ", throttle" : ""}
            </Fact>
            <Fact name="Percent" pencil={assumed("percentStep")}>
              {bike.percentStep ? `in steps of ${bike.percentStep}, counts ${bike.counts}` : "none"}
            </Fact>
            <Fact name={bike.barsAre === "bars" ? "Bars" : "Lamp colours"} pencil={assumed("bars")}>
              {bike.bars || "none"}
            </Fact>
            <Fact name="Volts" pencil={assumed("meterStepV")}>
              {bike.meterStepV ? `in steps of ${bike.meterStepV} V` : "none"}
            </Fact>
            <Fact name="Power shown" pencil={assumed("powerShown")}>
              {bike.powerShown}
            </Fact>
            <Fact name="Wheel setting">
              {show(bike.wheelCircumferenceM, (m) => formatQuantity(m, "length", system), "not noted")}
            </Fact>
            <Fact name="Claimed range">
              {bike.claims.length === 0 ? <span className="pencil">none noted</span> : null}
              {bike.claims.map((claim) => (
                <div key={`${claim.mode} ${claim.lowM}`}>
                  {claim.mode ? `${claim.mode}: ` : ""}
                  {claimText(claim, system)}
                  <div className="text-sm text-quiet">{claim.conditions || "conditions not stated"}</div>
                </div>
              ))}
            </Fact>
            {bike.reported.length ? (
              <Fact name="Others found">
                {bike.reported.map(({ by, drive, distanceM, energyWh }) => (
                  <div key={`${by} ${distanceM} ${energyWh}`}>
                    {by ? `${by}: ` : ""}
                    {drive === "throttle" ? "throttle, " : ""}
                    {formatQuantity(distanceM, "distance", system, 0)} on{" "}
                    {formatQuantity(energyWh, "energy", system)}
                  </div>
                ))}
              </Fact>
            ) : null}
            <Fact name="Brakes">{bike.brakes || <span className="pencil">not noted</span>}</Fact>
            {bike.comfort ? <Fact name="Comfort">{bike.comfort}</Fact> : null}
            <Fact name="Price">
              {show(bike.priceMinor, (minor) => `${fixed(minor / 100, 0)} ${bike.currency}`, "not noted")}
            </Fact>
          </dl>
          <div className="mt-3 text-sm">
            <Act kind="bike" id={bike.id} intent="duplicate" name={bike.name} />
            <Act
              kind="bike"
              id={bike.id}
              intent={bike.archived ? "restore" : "archive"}
              to={bike.archived ? `/bikes/${bike.id}` : "/bikes"}
              name={bike.name}
            />
          </div>
        </aside>
      </div>
    </Page>
  );
}
