import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { dayText, fixed, formatQuantity, formatUncertain, halfWidth95, stopwatchText } from "#core/base";
import { CLIMB_PACK_WH } from "#core/compare";
import type { Quarters } from "#core/analysis";
import { Empty, Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { onDesk } from "#app/services/comparison/answer.server";
import type { HillRun } from "#app/services/comparison/climbs.server";
import { CompareNav } from "./nav";
import type { Route } from "./+types/climbs";

export async function loader({ request, context }: Route.LoaderArgs) {
  const { value, pending } = await onDesk(context.get(dbContext), request, "climbs", {});
  return { ...value, pending };
}

/** A run up the hill, in a table. */
function RunRow({ run, fastestS }: { readonly run: HillRun; readonly fastestS: number }) {
  const system = useSystem();
  const say = useSpoken();
  const { id, bike, setUp, climb, figures } = run;
  return (
    <tr>
      <th scope="row">
        <Link to={href("/compare/climbs/:climbId", { climbId: id })}>{bike}</Link>
        <span className="block text-quiet">
          {[climb.drive === "throttle" ? "throttle" : climb.level || "pedal", setUp]
            .filter(Boolean)
            .join(", ")}
        </span>
      </th>
      {figures.ok ? (
        <>
          <td className="number font-bold">
            {figures.value.whPerVerticalM
              ? formatUncertain(figures.value.whPerVerticalM, "energyPerClimb", system).replace(" Wh/m", "")
              : "timed alone"}
          </td>
          <td className={`number ${figures.value.by === "percent" ? "pencil" : ""}`}>
            {figures.value.energyWh ? formatUncertain(figures.value.energyWh, "energy", system) : ""}
          </td>
          <td className="number">
            {figures.value.onCommonM ? formatUncertain(figures.value.onCommonM, "climb", system) : ""}
          </td>
          <td className={`number ${climb.timeS === fastestS ? "font-bold" : ""}`}>
            {stopwatchText(climb.timeS)}
          </td>
          <td className="number">{formatQuantity(figures.value.speedMps, "speed", system)}</td>
          <td className="number">
            {climb.entrySpeedMps === undefined
              ? "not noted"
              : formatQuantity(climb.entrySpeedMps, "speed", system)}
          </td>
          <td className="number">{fixed(figures.value.verticalMPerHour, 0)}</td>
          <td className="number">{fixed(figures.value.wheelW, 0)} W</td>
          <td className="number">
            {figures.value.batteryW === null ? "" : `${fixed(figures.value.batteryW, 0)} W`}
          </td>
        </>
      ) : (
        <td colSpan={9} className="text-rust">
          {figures.problems.map(({ sentence }) => say(sentence)).join(" ")}
        </td>
      )}
      <td className="whitespace-nowrap">{dayText(climb.day)}</td>
    </tr>
  );
}

/** Runs of one hill, the thriftiest first. */
function Hill({ hill, runs }: { readonly hill: string; readonly runs: readonly HillRun[] }) {
  const system = useSystem();
  const fastestS = Math.min(...runs.map(({ climb }) => climb.timeS));
  return (
    <section>
      <div className="mb-1 flex flex-wrap items-baseline gap-x-4">
        <h2>{hill}</h2>
        <Link
          to={`${href("/sheet/cards/:kind", { kind: "climbs" })}?${new URLSearchParams({ hill })}`}
          aria-label={`Card of ${hill} for a film`}
          className="text-sm print:hidden"
        >
          Card for a film
        </Link>
      </div>
      <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label={`Runs of ${hill}`}>
        <table className="table w-full min-w-[60rem] text-sm">
          <caption className="sr-only">Climbs, the least energy for a metre up first</caption>
          <thead>
            <tr>
              <th scope="col">Bike and level</th>
              <th scope="col" className="number">
                Wh per metre up
              </th>
              <th scope="col" className="number">
                Energy
              </th>
              <th scope="col" className="number">
                Up on {CLIMB_PACK_WH} Wh
              </th>
              <th scope="col" className="number">
                Time
              </th>
              <th scope="col" className="number">
                Speed
              </th>
              <th scope="col" className="number">
                Speed at the foot
              </th>
              <th scope="col" className="number">
                Climbing, m per hour
              </th>
              <th scope="col" className="number">
                At the wheel
              </th>
              <th scope="col" className="number">
                From the pack
              </th>
              <th scope="col">Day</th>
            </tr>
          </thead>
          <tbody>
            {runs.map((run) => (
              <RunRow key={run.id} run={run} fastestS={fastestS} />
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-1 text-sm text-quiet">
        {formatQuantity(runs[0]!.climb.lengthM, "distance", system)} long,{" "}
        {formatQuantity(runs[0]!.climb.gainM, "climb", system)} up,{" "}
        {fixed((100 * runs[0]!.climb.gainM) / runs[0]!.climb.lengthM, 1)} %. At the wheel: what the road load
        says the climb takes. Up on {CLIMB_PACK_WH} Wh: as high as such a pack would go from full to empty,
        usable energy. Bold time: the fastest. Italic: energy by the display&apos;s percent.
      </p>
    </section>
  );
}

/** Way and climb of each quarter of a charge. */
function Loops({
  bike,
  title,
  id,
  quarters,
}: {
  readonly bike: string;
  readonly title: string;
  readonly id: string;
  readonly quarters: Quarters;
}) {
  const system = useSystem();
  const { lastOverFirst, even } = quarters;
  return (
    <li className="border-b border-rule py-3">
      <p>
        <Link to={href("/strip/:testId", { testId: id })} className="font-bold">
          {bike}
        </Link>
        , {title}
      </p>
      <dl className="mt-1 flex flex-wrap gap-x-8 gap-y-1 text-sm">
        {quarters.quarters.map(({ from, to, distanceM, climbM }) => (
          <div key={from}>
            <dt className="text-quiet">
              {fixed(100 * from, 0)} to {fixed(100 * to, 0)} % used
            </dt>
            <dd>
              {formatQuantity(distanceM, "distance", system)}
              {climbM === null ? "" : `, ${formatQuantity(climbM, "climb", system)} up`}
            </dd>
          </div>
        ))}
      </dl>
      <p className={`mt-1 text-sm ${even ? "text-quiet" : "text-ochre"}`}>
        The last went {fixed(lastOverFirst.mean, 2)} ± {fixed(halfWidth95(lastOverFirst), 2)} times as{" "}
        {quarters.by === "climb" ? "high" : "far"} as the first:{" "}
        {even ? "even, within its doubt." : "not even."}
      </p>
    </li>
  );
}

/** Hills ranked by what a metre up costs, and charges by the quarter. */
export default function Climbs({ loaderData: { hills, loops } }: Route.ComponentProps) {
  const fresh = (
    <Link to={href("/compare/climbs/:climbId", { climbId: "new" })} className="button button-main">
      New climb
    </Link>
  );
  return (
    <Page
      title="Climbs"
      line="Runs of the same hill side by side, by level, throttle or pedals: what each metre up takes from the pack."
      next={hills.length ? fresh : undefined}
    >
      <CompareNav />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6">
        {hills.length ? (
          hills.map((each) => <Hill key={each.hill} {...each} />)
        ) : (
          <Empty step={fresh}>
            A climb is one hill of known length and height: time it, read the energy or the percent at its
            foot and top, then ride it again at another level.
          </Empty>
        )}
        {loops.length ? (
          <section className="max-w-4xl">
            <h2 className="mb-1">By quarter of the charge</h2>
            <ul>
              {loops.map((each) => (
                <Loops key={each.id} {...each} />
              ))}
            </ul>
          </section>
        ) : null}
      </div>
    </Page>
  );
}
