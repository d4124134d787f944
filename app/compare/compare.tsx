import { lazy, Suspense } from "react";
import { Form, Link, useNavigation, useSearchParams } from "react-router";
import { dbContext } from "#app/context";
import { resultsOf } from "#app/reckoning.server";
import { systemOf } from "#app/ui/systemCookie";
import { confounders, pairOf, standings, underReference } from "#core/compare";
import { fixed, fromSi, plusOrMinus, unitOf, writeUncertain } from "#core/quantities";
import { DRIVES } from "#core/records";
import { REFERENCES } from "#core/roadload";
import { listTests, loadRecord } from "#db/tests";
import { useAlive } from "#ui/alive";
import { Empty, Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { PairPanel } from "./pairPanel";
import { broughtOf, referenceNamed } from "./reference.server";
import type { CompareRow } from "./row";
import { StandingsTable } from "./standingsTable";
import type { Route } from "./+types/compare";

const StandingsChart = lazy(() => import("./standingsChart"));

/** Heights shared by the rows of words and the chart beside them, px. */
const ROW = 58;
const HEAD = 30;

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const search = new URL(request.url).searchParams;
  const [drive, bike] = [search.get("drive"), search.get("bike")];
  const lines = await listTests(db);
  const results = await resultsOf(db, lines);
  const reference = referenceNamed(search.get("under"));
  const brought = reference
    ? await broughtOf(db, lines, (id) => {
        const result = results.get(id);
        return result?.ok ? result.value : null;
      })
    : null;
  const left: { id: string; bike: string; title: string; why: string }[] = [];
  const rows = lines.flatMap((line): CompareRow[] => {
    const result = results.get(line.id);
    if (!result?.ok) return [];
    const { best, plain, flags } = result.value;
    const test = brought?.get(line.id);
    const under = reference && test ? underReference(test.ridden, test.bikeKg, reference) : null;
    if (under && !under.ok) {
      left.push({
        id: line.id,
        bike: line.bikeName,
        title: line.test.title,
        why: under.problems[0]!.sentence,
      });
      return [];
    }
    return [
      {
        id: line.id,
        bikeId: line.bikeId,
        bike: line.bikeName,
        setUp: line.setUpName,
        title: line.test.title,
        drive: line.test.drive,
        day: line.test.day,
        whPerM: under ? under.value.whPerM : best.value,
        because: best.because,
        pencil: under ? under.value.beyond.length > 0 : best.pencil,
        plainWhPerM: plain?.whPerM ?? null,
        questions: flags.length,
      },
    ];
  });
  const chosen = search.getAll("test").slice(0, 2);
  const pairRows = chosen.flatMap((id) => rows.find((row) => row.id === id) ?? []);
  const records =
    pairRows.length === 2 ? await Promise.all(pairRows.map(({ id }) => loadRecord(db, id))) : [];
  const [first, second] = pairRows;
  const pair =
    first && second && records[0] && records[1]
      ? {
          first,
          second,
          ...pairOf(first.whPerM, second.whPerM),
          confounders: confounders(records[0], records[1], systemOf(request)),
        }
      : null;
  const shown = rows.filter((row) => (!drive || row.drive === drive) && (!bike || row.bikeId === bike));
  return {
    ...standings(shown),
    reference: reference?.name ?? null,
    left,
    pair,
    bikes: [...new Map(rows.map((row) => [row.bikeId, row.bike]))].sort((a, b) => a[1].localeCompare(b[1])),
  };
}

export default function Compare({
  loaderData: { places, swaps, pair, bikes, reference, left },
}: Route.ComponentProps) {
  const system = useSystem();
  const say = useSpoken();
  const [search, setSearch] = useSearchParams();
  const alive = useAlive();
  // A tick shows at once, while the page it leads to is still on its way.
  const coming = useNavigation().location;
  const chosen = (coming ? new URLSearchParams(coming.search) : search).getAll("test").slice(0, 2);
  const unit = unitOf("energyPerDistance", system);
  const shown = (whPerM: number) => fromSi(whPerM, "energyPerDistance", unit);
  const filter = (name: string, value: string) =>
    setSearch((before) => {
      const next = new URLSearchParams(before);
      if (value) next.set(name, value);
      else next.delete(name);
      return next;
    });
  const choose = (id: string, on: boolean) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        const kept = on ? [...chosen, id].slice(-2) : chosen.filter((other) => other !== id);
        next.delete("test");
        for (const each of kept) next.append("test", each);
        return next;
      },
      { preventScrollReset: true },
    );
  return (
    <Page
      title={`Standings, ${unit} ${reference ? `under ${reference}` : "as ridden"}`}
      line={
        reference
          ? "Each test brought to the same conditions by the road load, thriftiest first. Hollow: the conditions lie far from the ride. Open a figure to see the way there."
          : "Each test under its own conditions, thriftiest first. Choose two to see their difference, and what else differed."
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-[minmax(0,1fr)_20rem]">
        <section className="min-w-0">
          <Form className="mb-4 flex flex-wrap items-center gap-3 text-sm">
            {chosen.map((id) => (
              <input key={id} type="hidden" name="test" value={id} />
            ))}
            <label className="flex items-center gap-2">
              Drive
              <select
                name="drive"
                className="input w-auto"
                value={search.get("drive") ?? ""}
                onChange={(event) => filter("drive", event.target.value)}
              >
                <option value="">pedal and throttle</option>
                {DRIVES.map((drive) => (
                  <option key={drive} value={drive}>
                    {drive}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex items-center gap-2">
              Bike
              <select
                name="bike"
                className="input w-auto"
                value={search.get("bike") ?? ""}
                onChange={(event) => filter("bike", event.target.value)}
              >
                <option value="">all</option>
                {bikes.map(([id, name]) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex items-center gap-2">
              Under
              <select
                name="under"
                className="input w-auto"
                value={search.get("under") ?? ""}
                onChange={(event) => filter("under", event.target.value)}
              >
                <option value="">own conditions, as ridden</option>
                {REFERENCES.map(({ name }) => (
                  <option key={name} value={name}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <noscript>
              <button className="button">Show</button>
            </noscript>
          </Form>
          {places.length === 0 ? (
            <Empty
              step={
                <Link to="/strip/new" className="button button-main">
                  New test
                </Link>
              }
            >
              Tests with a figure stand here, thriftiest first.{" "}
              {search.size ? "None fits these filters." : "There is none yet."}
            </Empty>
          ) : (
            <>
              <div className="flex">
                <ol className="w-full min-w-0 md:w-[46%]" style={{ paddingTop: HEAD }}>
                  {places.map(({ place, row }) => {
                    const { value, error } = writeUncertain(row.whPerM, "energyPerDistance", system);
                    return (
                      <li
                        key={row.id}
                        className="flex items-center gap-2 border-b border-rule"
                        style={{ height: ROW }}
                      >
                        <input
                          type="checkbox"
                          className="size-5 shrink-0 accent-spruce"
                          checked={chosen.includes(row.id)}
                          onChange={(event) => choose(row.id, event.target.checked)}
                          aria-label={`Choose ${row.bike}, ${row.title}`}
                        />
                        <span className="w-5 shrink-0 text-right text-sm text-quiet">{place}</span>
                        <div className="min-w-0 flex-1">
                          <Link
                            to={`/strip/${row.id}`}
                            className="block truncate font-bold text-ink no-underline hover:underline"
                          >
                            {row.bike}
                          </Link>
                          <span
                            className="block truncate text-sm text-quiet"
                            title={`${row.title}, ${row.setUp ?? ""}`}
                          >
                            {row.drive === "throttle" ? "throttle, " : ""}
                            {row.title}
                          </span>
                        </div>
                        <div className={`shrink-0 text-right ${row.pencil ? "pencil" : ""}`}>
                          {reference ? (
                            <Link
                              to={`/compare/bridge/${row.id}?under=${encodeURIComponent(reference)}`}
                              aria-label={`How ${row.bike}, ${row.title} comes to ${value}`}
                              className={row.pencil ? "text-ochre" : "text-ink"}
                            >
                              <b className="text-lg leading-tight">{value}</b>
                            </Link>
                          ) : (
                            <b className="text-lg leading-tight">{value}</b>
                          )}
                          <span className="block text-sm leading-tight text-quiet">± {error}</span>
                        </div>
                      </li>
                    );
                  })}
                </ol>
                <div
                  className="hidden min-w-0 flex-1 md:block"
                  style={{ height: HEAD + ROW * places.length }}
                  aria-hidden
                >
                  {alive ? (
                    <Suspense fallback={null}>
                      <StandingsChart
                        head={HEAD}
                        row={ROW}
                        unit={unit}
                        rows={places.map(({ row }) => ({
                          id: row.id,
                          best: shown(row.whPerM.mean),
                          error: shown(plusOrMinus(row.whPerM)),
                          plain: row.plainWhPerM === null ? null : shown(row.plainWhPerM),
                          hollow: row.pencil || row.questions > 0,
                        }))}
                      />
                    </Suspense>
                  ) : null}
                </div>
              </div>
              <p className="mt-3 text-sm text-quiet">
                Dot and line: best, with its 95 % span. Upright stroke: plain, as ridden. Hollow: a reading of
                the test is in question{reference ? ", or the conditions lie far from the ride" : ""}.{" "}
                {swaps
                  .map(
                    ({ upper, lower, chance }) =>
                      `Places ${upper} and ${lower} could be swapped (${fixed(100 * chance, 0)} in 100).`,
                  )
                  .join(" ")}
              </p>
              {left.length > 0 ? (
                <section className="mt-4 text-sm">
                  <h2 className="mb-1">Not brought there</h2>
                  <ul>
                    {left.map(({ id, bike, title, why }) => (
                      <li key={id}>
                        <Link to={`/strip/${id}`}>
                          {bike}, {title}
                        </Link>
                        : {say(why)}
                      </li>
                    ))}
                  </ul>
                </section>
              ) : null}
              <StandingsTable places={places} unit={unit} />
            </>
          )}
        </section>
        <PairPanel pair={pair} oneChosen={chosen.length === 1} />
      </div>
    </Page>
  );
}
