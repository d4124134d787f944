import { lazy, useRef, useState } from "react";
import { href, data, Form, Link, useFetcher } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { useMeeting } from "#ui/forms/useMeeting";
import { sweepResults, type SweepCurve, type SweepResults } from "#core/compare";
import {
  dayText,
  farText,
  formatInput,
  formatQuantity,
  formatUncertain,
  type System,
  unitOf,
} from "#core/base";
import { EFFORTS, type Sweep } from "#core/records";
import { versionMade } from "#db/entities";
import { findSweep, saveSweep } from "#db/field";
import { useAnnounced } from "#ui/announce";
import { Chart } from "#ui/charts/chart";
import { Choose, Line, LiveFields } from "#ui/forms/lines";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { ridingOf, shelfOf } from "#app/services/comparison/desk.server";
import { gridOf, readSweepForm } from "./sweepForm";
import { SweepGrid } from "./sweepGrid";
import { useSweep } from "./useSweep";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import { staleOf } from "#app/ui/forms/stale";
import type { Route } from "./+types/sweep";
import { Acts } from "#ui/acts";

const SweepChart = lazy(() => import("./sweepChart"));
const GONE = "There is no such sweep.";
/** Pause after a key before what is typed is kept, ms. */
const PAUSE_MS = 800;

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findSweep(db, idOf(params.sweepId, GONE)), GONE);
  const shelf = await shelfOf(db);
  const riding = found(ridingOf(shelf, line), GONE);
  const pack = found(shelf.packs.get(line.packId), GONE);
  return { line, riding, pack, results: sweepResults(line.body, riding, pack) };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const line = found(await findSweep(db, idOf(params.sweepId, GONE)), GONE);
  const form = await request.formData();
  const system = systemOf(request);
  const { sweep, problems } = readSweepForm(form, line.body, system);
  const { saved, stale } = await saveOrStale(
    () => saveSweep(db, line.id, line, sweep, seenVersion(form)),
    async () => textsOf(found(await findSweep(db, line.id), GONE).body, system),
  );
  if (stale) return staleReply({ problems }, stale);
  const version = await versionMade(db, saved);
  return data({ problems, version }, { status: Object.keys(problems).length ? 400 : 200 });
}

function textsOf(sweep: Sweep, system: System): Readonly<Record<string, string>> {
  const rows = gridOf(sweep, system).flatMap((row, i) =>
    Object.entries(row).map(([name, text]) => [`rows.${i}.${name}`, text]),
  );
  return Object.fromEntries([
    ["title", sweep.title],
    ["day", sweep.day],
    ["effort", sweep.effort],
    [
      "airTempC",
      sweep.airTempC === undefined
        ? ""
        : formatInput(sweep.airTempC, "temperature", unitOf("temperature", system), 1),
    ],
    ...rows,
  ]);
}

/** The squares with both schools of range. */
function Squares({ results }: { readonly results: SweepResults }) {
  const system = useSystem();
  const far = (metres: number | null) =>
    metres === null ? "no Ah" : formatQuantity(metres, "distance", system, 0);
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="What each square says">
      <table className="table w-full min-w-[26rem] text-sm">
        <caption className="sr-only">Ranges from the runs of the sweep</caption>
        <thead>
          <tr>
            <th scope="col">Square</th>
            <th scope="col" className="number">
              Speed
            </th>
            <th scope="col" className="number">
              Energy
            </th>
            <th scope="col" className="number">
              Range, Ah
            </th>
            <th scope="col" className="number">
              by label
            </th>
          </tr>
        </thead>
        <tbody>
          {results.spots.map((each, i) => {
            const row = results.fit?.rows[i];
            return (
              <tr key={i}>
                <th scope="row">
                  {each.ground}, {each.level}
                  {each.oneWay || row?.outlier ? (
                    <span className="block text-ochre">
                      {each.oneWay ? "one way only" : ""}
                      {row?.outlier ? ` ${farText(row.standing)} off` : ""}
                    </span>
                  ) : null}
                </th>
                <td className="number">{formatQuantity(each.speedMps, "speed", system)}</td>
                <td className="number">{formatUncertain(each.whPerM, "energyPerDistance", system)}</td>
                <td className="number">{far(each.rangeByChargeM)}</td>
                <td className="number">{far(each.rangeByLabelM)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** What a curve says of speed and range, in a sentence. */
function useSpeedSentence() {
  const system = useSystem();
  const mph = (mps: number) => formatQuantity(mps, "speed", system, 0);
  return ({ ground, drive, againstMps, doublesAtMps, halvesAtMps }: SweepCurve): string =>
    `On ${ground}${drive === "throttle" ? " by throttle" : ""}, against ${mph(againstMps)}: ${doublesAtMps === null ? "no slower speed doubles the range" : `the range doubles at ${mph(doublesAtMps)}`}, ${halvesAtMps === null ? "no faster one halves it" : `and halves at ${mph(halvesAtMps)}`}.`;
}

/** What a sweep says so far: its chart, its sentences, what the fit knows. */
function SweepSays({
  results,
  bike,
}: {
  readonly results: ReturnType<typeof useSweep>["results"];
  readonly bike: { readonly id: string; readonly name: string };
}) {
  const say = useSpoken();
  const speaks = useSpeedSentence();
  const { fit } = results;
  const outliers = new Set(fit?.rows.flatMap(({ outlier }, i) => (outlier ? [i] : [])) ?? []);
  return (
    <section aria-label="What it says" className="grid min-w-0 content-start gap-6">
      {results.problems.length ? (
        <ul role="alert" className="text-rust">
          {results.problems.map(({ row, sentence }) => (
            <li key={row}>
              Row {row + 1}: {say(sentence)}
            </li>
          ))}
        </ul>
      ) : null}
      {results.spots.length ? (
        <>
          <Chart height={360} className="sheet p-3">
            <SweepChart curves={results.curves} spots={results.spots} outliers={outliers} />
          </Chart>
          <ul className="grid gap-1">
            {results.curves.map((curve) => (
              <li key={`${curve.ground}/${curve.drive}`}>{speaks(curve)}</li>
            ))}
          </ul>
          <Squares results={results} />
          {fit ? (
            <section>
              <h2 className="mb-1">What the fit knows</h2>
              <ul className="list-disc pl-5 text-sm">
                {fit.words.map((sentence) => (
                  <li key={sentence}>{say(sentence)}</li>
                ))}
              </ul>
              <p className="mt-2 text-sm text-quiet">
                It joins the bike&apos;s other sweeps and climbs in{" "}
                <Link to={href("/compare/bikes/:bikeId", { bikeId: bike.id })}>
                  what is known of {bike.name}
                </Link>
                .
              </p>
            </section>
          ) : null}
        </>
      ) : (
        <p className="text-quiet">
          Hold a speed on a quiet stretch, read the amps as they flicker and the volts under load, then ride
          it back. The first filled row shows here.
        </p>
      )}
    </section>
  );
}

/** A sweep: the grid to fill at each stop, and what it says so far. */
export default function SweepPage({ loaderData }: Route.ComponentProps) {
  const { line, riding, pack, results: sent } = loaderData;
  const system = useSystem();
  const form = useRef<HTMLFormElement>(null);
  const fetcher = useFetcher<typeof action>();
  const { soon, status, fields } = useMeeting(form, fetcher, line.version, staleOf(fetcher.data));
  const [typed, setTyped] = useState<Readonly<Record<string, string>> | null>(null);
  const [grid] = useState(() => textsOf(line.body, system));
  const [rows, setRows] = useState(() => gridOf(line.body, system).length + 1);
  const { ask, results } = useSweep(sent);
  const levels = [...riding.bike.levels, ...(riding.bike.throttle ? ["throttle"] : [])];
  useAnnounced(status === "saved as typed" ? "Saved." : null);
  const onEdit = () => {
    const read = readSweepForm(new FormData(form.current!), line.body, system);
    setTyped(read.problems);
    ask({ sweep: read.sweep, riding, pack });
    soon(PAUSE_MS);
  };
  return (
    <Page
      title={line.body.title}
      line={[riding.bike.name, line.setUpName, pack.name, dayText(line.body.day), line.riderName]
        .filter(Boolean)
        .join(", ")}
      acts={
        <Acts
          kind="sweep"
          id={line.id}
          name={line.body.title}
          list={href("/compare/sweeps")}
          archived={line.archived}
        />
      }
      next={<span className="text-sm text-quiet">{status}</span>}
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-[minmax(0,38rem)_minmax(0,1fr)]">
        <LiveFields values={grid} problems={typed ?? fetcher.data?.problems ?? {}}>
          <Form method="post" ref={form} onInput={onEdit} className="grid content-start gap-4">
            {fields}
            <SweepGrid rows={rows} levels={levels} onMore={() => setRows((count) => count + 1)} />
            <details>
              <summary>Day, air and rider</summary>
              <div className="mt-2 grid gap-3 sm:grid-cols-2">
                <Line name="title" label="Name" />
                <Line name="day" label="Day" type="date" />
                <Line name="airTempC" label="Air temperature" assumed="20 C" />
                <Choose
                  name="effort"
                  label="Rider's effort on pedalled rows"
                  options={EFFORTS.map((value) => ({ value, label: value }))}
                />
              </div>
            </details>
            <noscript>
              <button className="button">Save</button>
            </noscript>
          </Form>
        </LiveFields>
        <SweepSays results={results} bike={{ id: line.bikeId, name: riding.bike.name }} />
      </div>
      <div className="px-4 pb-6 md:px-6">
        <History kind="sweep" id={line.id} />
      </div>
    </Page>
  );
}
