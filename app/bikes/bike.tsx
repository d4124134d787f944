import type { ReactNode } from "react";
import { Link } from "react-router";
import { dbContext } from "#app/context";
import { resultsOf } from "#app/reckoning.server";
import { found, idOf } from "#app/ui/require.server";
import { dayText } from "#app/ui/testLine";
import { labelEnergy, usableEnergy } from "#core/pack";
import { formatQuantity, formatUncertain } from "#core/quantities";
import { packHistory } from "#core/results";
import { findBike, listPacks, listSetUps } from "#db/bikes";
import { listTests } from "#db/tests";
import { Figure } from "#ui/figure";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { CapacityChart } from "./capacity";
import type { Route } from "./+types/bike";

const GONE = "There is no such bike.";

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  const [packs, setUps, tests] = await Promise.all([
    listPacks(db, bike.id),
    listSetUps(db, bike.id),
    listTests(db, { bikeId: bike.id }),
  ]);
  const results = await resultsOf(db, tests);
  return {
    bike,
    setUps,
    packs: packs.map((pack) => {
      const [label, usable] = [labelEnergy(pack), usableEnergy({ ...pack, packTempC: 25 })];
      const alone = tests.flatMap(({ id, packId, secondPackId, test }) => {
        const result = results.get(id);
        return packId === pack.id && secondPackId === null && result?.ok
          ? [{ day: test.day, learned: result.value.packLearned }]
          : [];
      });
      return {
        ...pack,
        label: label.ok ? label.value : null,
        usable: usable.ok ? usable.value : null,
        history: packHistory(pack, alone, new Date().toISOString().slice(0, 10)),
      };
    }),
    tests: tests.map((line) => {
      const result = results.get(line.id);
      return {
        id: line.id,
        test: line.test,
        setUpName: line.setUpName,
        whPerM: result?.ok ? result.value.best.value : null,
      };
    }),
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

export default function BikePage({ loaderData: { bike, packs, setUps, tests } }: Route.ComponentProps) {
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
          <Link to={`/strip/new?bike=${bike.id}`} className="button button-main">
            New test
          </Link>
        ) : (
          <Link to={`/bikes/${bike.id}/packs/new`} className="button button-main">
            Add its pack
          </Link>
        )
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="grid content-start gap-8">
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
                        setUp.carriedKg
                          ? `carries ${formatQuantity(setUp.carriedKg, "mass", system, 0)}`
                          : "",
                      ]
                        .filter(Boolean)
                        .join(", ")}
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
          <dl>
            <Fact name="Weight">
              {show(bike.massKg, (kg) => formatQuantity(kg, "mass", system), "not weighed")}
            </Fact>
            <Fact name="Motor" pencil={assumed("motor")}>
              {bike.motor === "hub" ? "hub motor" : "mid motor"}
            </Fact>
            <Fact name="Levels" pencil={assumed("levels")}>
              {bike.levels.join(", ")}
              {bike.throttle ? ", throttle" : ""}
            </Fact>
            <Fact name="Percent" pencil={assumed("percentStep")}>
              {bike.percentStep ? `in steps of ${bike.percentStep}, counts ${bike.counts}` : "none"}
            </Fact>
            <Fact name="Bars" pencil={assumed("bars")}>
              {bike.bars || "none"}
            </Fact>
            <Fact name="Volts" pencil={assumed("meterStepV")}>
              in steps of {bike.meterStepV} V
            </Fact>
            <Fact name="Wheel setting">
              {show(bike.wheelCircumferenceM, (m) => formatQuantity(m, "length", system), "not noted")}
            </Fact>
            <Fact name="Claimed range">
              {show(
                bike.claimLowM,
                (low) =>
                  [...new Set([low, bike.claimHighM ?? low])]
                    .map((m) => formatQuantity(m, "distance", system, 0))
                    .join(" to "),
                "none noted",
              )}
            </Fact>
          </dl>
        </aside>
      </div>
    </Page>
  );
}
