import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { freshen } from "#app/services/analysis.server";
import { claimText } from "#app/ui/claim";
import { labelEnergy } from "#core/battery";
import { fixed, formatQuantity, Z_95, countOf } from "#core/base";
import { claimedSpan } from "#core/records";
import { listBikes, listInstruments, listPacks, listRiders } from "#db/bikes";
import { headlinesOf } from "#db/results";
import { latestTests } from "#db/tests";
import type { Unreadable } from "#db/unreadable";
import { Figure } from "#ui/figure";
import { Empty, Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { UnreadableRows } from "#ui/unreadableRows";
import type { Route } from "./+types/list";

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const archived = new URL(request.url).searchParams.has("archived");
  const unreadable: Unreadable[] = [];
  const [bikes, packs, riders, instruments, latest] = await Promise.all([
    listBikes(db, { archived, unreadable }),
    listPacks(db, undefined, { unreadable }),
    listRiders(db, { archived, unreadable }),
    listInstruments(db, { archived, unreadable }),
    latestTests(db),
  ]);
  const pending = await freshen(db, [...latest.values()]);
  const headlines = await headlinesOf(
    db,
    [...latest.values()].map(({ id }) => id),
  );
  return {
    archived,
    riders,
    instruments,
    pending,
    unreadable,
    bikes: bikes.map((bike) => {
      const line = latest.get(bike.id);
      const whPerM = line && headlines.get(line.id)?.whPerM;
      return {
        ...bike,
        claimed: claimedSpan(bike),
        packs: packs
          .filter(({ bikeId }) => bikeId === bike.id)
          .map((pack) => ({ name: pack.name, wh: labelEnergy(pack), measuredWh: pack.measuredWh ?? null })),
        last: line && whPerM ? { testId: line.id, title: line.title, whPerM } : null,
      };
    }),
  };
}

type Data = Route.ComponentProps["loaderData"];

/** Bikes under test, with what is known of each at a glance. */
function BikeTable({ bikes }: { readonly bikes: Data["bikes"] }) {
  const system = useSystem();
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Bikes">
      <table className="table w-full min-w-xl">
        <caption className="sr-only">Bikes</caption>
        <thead>
          <tr>
            <th scope="col">Bike</th>
            <th scope="col" className="number">
              Weight
            </th>
            <th scope="col">Packs</th>
            <th scope="col">Claim</th>
            <th scope="col" className="number">
              Last, as ridden
            </th>
          </tr>
        </thead>
        <tbody>
          {bikes.map((bike) => (
            <tr key={bike.id}>
              <th scope="row">
                <Link to={href("/bikes/:bikeId", { bikeId: bike.id })} className="font-bold">
                  {bike.name}
                </Link>
                {bike.archived ? <span className="text-sm text-quiet"> archived</span> : null}
                <div className="text-sm text-quiet">{bike.what}</div>
              </th>
              <td className="number">
                {bike.massKg === undefined ? (
                  <span className="pencil">not weighed</span>
                ) : (
                  formatQuantity(bike.massKg, "mass", system)
                )}
              </td>
              <td>
                {bike.packs.map(({ name, wh, measuredWh }) => (
                  <div key={name}>
                    {wh.ok ? formatQuantity(wh.value, "energy", system) : "no label"}
                    <span className="text-sm text-quiet">
                      {measuredWh === null
                        ? ""
                        : `, measured ${formatQuantity(measuredWh, "energy", system)}`}
                    </span>
                  </div>
                ))}
                {bike.packs.length === 0 ? (
                  <Link to={href("/bikes/:bikeId/packs/:packId", { bikeId: bike.id, packId: "new" })}>
                    add its pack
                  </Link>
                ) : null}
              </td>
              <td>{bike.claimed ? claimText(bike.claimed, system) : ""}</td>
              <td className="number">
                {bike.last ? (
                  <Link
                    to={href("/strip/:testId", { testId: bike.last.testId })}
                    className="text-ink"
                    title={bike.last.title}
                  >
                    <Figure value={bike.last.whPerM} dimension="energyPerDistance" />
                  </Link>
                ) : (
                  <span className="text-quiet">no test yet</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Who rides. */
function RiderList({ riders }: { readonly riders: Data["riders"] }) {
  const system = useSystem();
  return (
    <ul className="flex flex-wrap gap-2">
      {riders.map((rider) => (
        <li key={rider.id} className="sheet px-3 py-2">
          <Link to={href("/bikes/riders/:riderId", { riderId: rider.id })}>{rider.name}</Link>
          <span className="text-sm text-quiet">
            {rider.massKg === undefined
              ? ", not weighed"
              : `, ${formatQuantity(rider.massKg, "mass", system, 0)}`}
          </span>
        </li>
      ))}
      <li>
        <Link to={href("/bikes/riders/:riderId", { riderId: "new" })} className="button">
          Add a rider
        </Link>
      </li>
    </ul>
  );
}

/** What measures and charges. */
function InstrumentList({ instruments }: { readonly instruments: Data["instruments"] }) {
  const system = useSystem();
  return (
    <ul className="flex flex-wrap gap-2">
      {instruments.map((instrument) => (
        <li key={instrument.id} className="sheet px-3 py-2">
          <Link to={href("/bikes/instruments/:instrumentId", { instrumentId: instrument.id })}>
            {instrument.name}
          </Link>
          <span className="text-sm text-quiet">
            , {instrument.kind}
            {instrument.gainSd === undefined ? "" : `, ± ${fixed(100 * Z_95 * instrument.gainSd, 1)} %`}
            {instrument.amps === undefined ? "" : `, ${formatQuantity(instrument.amps, "current", system)}`}
          </span>
        </li>
      ))}
      <li>
        <Link to={href("/bikes/instruments/:instrumentId", { instrumentId: "new" })} className="button">
          Add an instrument
        </Link>
      </li>
    </ul>
  );
}

export default function Bikes({
  loaderData: { bikes, riders, instruments, archived, unreadable },
}: Route.ComponentProps) {
  return (
    <Page
      title="Bikes"
      line={`${countOf(bikes.length, "bike")} and ${countOf(riders.length, "rider")} on this desk`}
      next={
        <Link to={href("/bikes/new")} className="button button-main">
          Add a bike
        </Link>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6">
        <UnreadableRows rows={unreadable} />
        {bikes.length === 0 ? (
          <Empty
            step={
              <Link to={href("/bikes/new")} className="button button-main">
                Add the first bike
              </Link>
            }
          >
            Bikes under test stand here, with their packs, set-ups and last figure.
          </Empty>
        ) : (
          <BikeTable bikes={bikes} />
        )}
        <section>
          <h2 className="mb-2">Riders</h2>
          <RiderList riders={riders} />
        </section>
        <section>
          <h2 className="mb-2">Meters, loggers and chargers</h2>
          <InstrumentList instruments={instruments} />
        </section>
        <p className="text-sm">
          {archived ? (
            <Link to={href("/bikes")}>Leave out what is archived</Link>
          ) : (
            <Link to={`${href("/bikes")}?archived`}>Show what is archived</Link>
          )}
          {" · "}
          <Link to={href("/settings/trash")}>Trash</Link>
        </p>
      </div>
    </Page>
  );
}
