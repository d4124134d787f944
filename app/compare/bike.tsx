import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { formatQuantity, unitOf } from "#core/base";
import { newestReferences, referenceName } from "#core/bike";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { onDesk } from "#app/services/comparison/answer.server";
import { Filters, Pick } from "./filters";
import { Matrix } from "./matrix";
import { CompareNav } from "./nav";
import { Ranges } from "./ranges";
import { allReferences, referenceAt } from "#app/services/comparison/references.server";
import { useFilters } from "./useFilters";
import { RoadLoad } from "./roadLoad";
import type { Route } from "./+types/bike";

const GONE = "There is no such bike.";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const [reference, references] = await Promise.all([referenceAt(db, request), allReferences(db)]);
  const { value, pending } = await onDesk(db, request, "bikeKnown", {
    bikeId: idOf(params.bikeId, GONE),
    reference,
  });
  return {
    known: found(value, GONE),
    pending,
    reference: reference && referenceName(reference),
    names: newestReferences(references).map(({ name }) => name),
  };
}

type Known = Route.ComponentProps["loaderData"]["known"];

/** The display's guess of the way left, against what it came to. */
function Guesses({ known }: { readonly known: Known }) {
  const system = useSystem();
  const signed = (metres: number) => `${metres > 0 ? "+" : ""}${formatQuantity(metres, "distance", system)}`;
  if (!known.guesses.length)
    return <p className="text-quiet">Nobody noted the display&apos;s guess. On a ride type ~28mi left.</p>;
  return (
    <table className="table w-full text-sm">
      <caption className="sr-only">The display's guesses of range, test by test</caption>
      <thead>
        <tr>
          <th scope="col">Test</th>
          <th scope="col" className="number">
            Guesses
          </th>
          <th scope="col" className="number">
            Off by, on average
          </th>
          <th scope="col" className="number">
            At worst
          </th>
        </tr>
      </thead>
      <tbody>
        {known.guesses.map(({ id, title, audit }) => (
          <tr key={id}>
            <th scope="row">
              <Link to={href("/strip/:testId", { testId: id })} className="underline">
                {title}
              </Link>
            </th>
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
        <Link to={href("/bikes/:bikeId", { bikeId: bike.id })} className="button">
          The bike
        </Link>
      }
    >
      <CompareNav />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-2">
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
          <section>
            <h2 className="mb-2">
              {unit} by level and ground{" "}
              {reference ? `under ${reference}, each at its own speed` : "as ridden"}
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
            <Matrix cells={known.cells} levels={known.bike.levels} />
          </section>
          <section>
            <h2 className="mb-2">Its road load</h2>
            <RoadLoad road={known.road} rests={known.rests} bikeId={bike.id} />
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
