import { Link } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { fixed, formatQuantity, plusOrMinus, unitOf, writeUncertain, type Uncertain } from "#core/quantities";
import { newestReferences, referenceName } from "#core/roadload";
import { Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { bikeKnown, type CellRanges } from "./bike.server";
import { Filters, Pick } from "./filters";
import { CompareNav } from "./nav";
import { allReferences, referenceAt } from "./references.server";
import { useFilters } from "./useFilters";
import type { Route } from "./+types/bike";

const GONE = "There is no such bike.";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const [reference, references] = await Promise.all([referenceAt(db, request), allReferences(db)]);
  return {
    known: found(await bikeKnown(db, idOf(params.bikeId, GONE), reference), GONE),
    reference: reference && referenceName(reference),
    names: newestReferences(references).map(({ name }) => name),
  };
}

type Known = Route.ComponentProps["loaderData"]["known"];

/** What each level takes on each ground. */
function Matrix({ known }: { readonly known: Known }) {
  const system = useSystem();
  const grounds = [...new Set(known.cells.map(({ ground }) => ground))];
  const levels = [...new Set([...known.bike.levels, ...known.cells.map(({ level }) => level)])];
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Levels by grounds">
      <table className="table w-full text-sm">
        <thead>
          <tr>
            <th>Level</th>
            {grounds.map((ground) => (
              <th key={ground} className="number">
                {ground}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {levels.map((level) => (
            <tr key={level}>
              <td>{level}</td>
              {grounds.map((ground) => {
                const cell = known.cells.find((each) => each.level === level && each.ground === ground);
                return (
                  <td key={ground} className="number">
                    {!cell ? (
                      <span className="text-quiet">not ridden</span>
                    ) : cell.whPerM ? (
                      <>
                        <b>{writeUncertain(cell.whPerM, "energyPerDistance", system).value}</b>{" "}
                        <span className="text-quiet">
                          ± {writeUncertain(cell.whPerM, "energyPerDistance", system).error}
                        </span>
                      </>
                    ) : (
                      <i className="text-ochre">not told apart</i>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A span to be read out: "31 to 36". */
function useSpan() {
  const system = useSystem();
  return (value: Uncertain) => {
    const by = plusOrMinus(value);
    const bare = (metres: number) =>
      formatQuantity(Math.max(0, metres), "distance", system, 0).replace(/ \D+$/, "");
    return `${bare(value.mean - by)} to ${bare(value.mean + by)}`;
  };
}

/** Range by level, ground and season, with spans a reviewer can read out. */
function Ranges({
  ranges,
  levels,
}: {
  readonly ranges: readonly CellRanges[];
  readonly levels: readonly string[];
}) {
  const span = useSpan();
  const rank = (level: string) => (levels.includes(level) ? levels.indexOf(level) : levels.length);
  const sorted = [...ranges].sort((a, b) => rank(a.level) - rank(b.level));
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Range by season">
      <table className="table w-full min-w-[30rem] text-sm">
        <thead>
          <tr>
            <th>Level and ground</th>
            {ranges[0]!.seasons.map(({ name, tempC }) => (
              <th key={name} className="number">
                {name}, <Temp c={tempC} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sorted.map(({ level, ground, seasons }) => (
            <tr key={`${level}/${ground}`}>
              <td>
                {level}, {ground}
              </td>
              {seasons.map(({ name, total, fullPower, withReserve }) => (
                <td key={name} className="number">
                  <b className="text-base">{span(total)}</b>
                  <span className="block text-quiet">
                    {span(fullPower)}; {span(withReserve)}
                  </span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Temp({ c }: { readonly c: number }) {
  return formatQuantity(c, "temperature", useSystem());
}

/** What the bike's own sweeps and climbs say of its road load. */
function RoadLoad({ known }: { readonly known: Known }) {
  const say = useSpoken();
  if (!known.fit)
    return (
      <p className="text-quiet">
        As its kind lets expect. A <Link to={`/compare/sweeps/new?bike=${known.bike.id}`}>sweep</Link> or{" "}
        <Link to={`/compare/climbs/new?bike=${known.bike.id}`}>climb</Link> of its own would fit it.
      </p>
    );
  return (
    <>
      <table className="table w-full text-sm">
        <thead>
          <tr>
            <th>What</th>
            <th className="number">Fitted</th>
            <th className="number">Assumed</th>
            <th className="number">Rows</th>
          </tr>
        </thead>
        <tbody>
          {known.fit.parameters.map(({ name, value, assumed, rows }) => {
            const digits = value.mean < 0.1 ? 4 : 2;
            return (
              <tr key={name}>
                <td>{name}</td>
                <td className={`number ${rows ? "" : "pencil"}`}>
                  {fixed(value.mean, digits)} ± {fixed(plusOrMinus(value), digits)}
                </td>
                <td className="number text-quiet">
                  {fixed(assumed.mean, digits)} ± {fixed(plusOrMinus(assumed), digits)}
                </td>
                <td className="number">{rows}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <ul className="mt-2 list-disc pl-5 text-sm">
        {known.fit.words.map((sentence) => (
          <li key={sentence}>{say(sentence)}</li>
        ))}
      </ul>
    </>
  );
}

/** The display's guess of the way left, against what it came to. */
function Guesses({ known }: { readonly known: Known }) {
  const system = useSystem();
  const signed = (metres: number) => `${metres > 0 ? "+" : ""}${formatQuantity(metres, "distance", system)}`;
  if (!known.guesses.length)
    return <p className="text-quiet">Nobody noted the display&apos;s guess. On a ride type ~28mi left.</p>;
  return (
    <table className="table w-full text-sm">
      <thead>
        <tr>
          <th>Test</th>
          <th className="number">Guesses</th>
          <th className="number">Off by, on average</th>
          <th className="number">At worst</th>
        </tr>
      </thead>
      <tbody>
        {known.guesses.map(({ id, title, audit }) => (
          <tr key={id}>
            <td>
              <Link to={`/strip/${id}`} className="underline">
                {title}
              </Link>
            </td>
            <td className="number">{audit.guesses.length}</td>
            <td className="number">{signed(audit.biasM)}</td>
            <td className="number">
              {signed(audit.worst.offM)} at {formatQuantity(audit.worst.distanceM, "distance", system)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** One bike over all its tests: levels by grounds, range through the year, its road load, and its display. */
export default function BikeKnown({ loaderData: { known, reference, names } }: Route.ComponentProps) {
  const system = useSystem();
  const { search, pick } = useFilters();
  const { bike } = known;
  const unit = unitOf("energyPerDistance", system);
  return (
    <Page
      title={`${bike.name}, what is known`}
      line={`Over ${known.tests === 1 ? "one test" : `${known.tests} tests`}, each level and ground from the tests whose readings tell it apart.${known.questioned.length ? ` Left out, with a reading in question: ${known.questioned.join(", ")}.` : ""}`}
      next={
        <Link to={`/bikes/${bike.id}`} className="button">
          The bike
        </Link>
      }
    >
      <CompareNav />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-2">
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
          <section>
            <h2 className="mb-2">
              {unit} by level and ground {reference ? `under ${reference}` : "as ridden"}
            </h2>
            <Filters>
              <Pick
                name="under"
                label="Under"
                value={search.get("under") ?? ""}
                onPick={pick}
                options={[["", "as ridden"], ...names.map((name) => [name, name] as const)]}
              />
            </Filters>
            <Matrix known={known} />
          </section>
          <section>
            <h2 className="mb-2">Its road load</h2>
            <RoadLoad known={known} />
          </section>
        </div>
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
          <section>
            <h2 className="mb-2">Range on the {known.packName ?? "pack"}, to be read out</h2>
            {known.ranges.length ? (
              <Ranges ranges={known.ranges} levels={bike.levels} />
            ) : (
              <p className="text-quiet">
                No level and ground is told apart yet: check in where either changes.
              </p>
            )}
            <p className="mt-2 text-sm text-quiet">
              In {unitOf("distance", system)}. Large: to the end. Small: at full power; with a fifth kept
              back. Each span holds 95 in 100, ridden as on the tests.
            </p>
          </section>
          <section>
            <h2 className="mb-2">The display&apos;s own guess</h2>
            <Guesses known={known} />
          </section>
        </div>
      </div>
    </Page>
  );
}
