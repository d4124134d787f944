import { href, Form, Link } from "react-router";
import { dbContext } from "#app/context";
import { parseNumber, spanOf } from "#core/base";
import { newestReferences, referenceName, REFERENCES } from "#core/bike";
import { Empty, Page } from "#ui/page";
import { useSpoken } from "#ui/system";
import { BikeClaims } from "./bikeClaims";
import { onDesk } from "#app/services/comparison/answer.server";
import { TARIFF_MINOR } from "#app/services/comparison/ask";
import { Filters, Pick } from "./filters";
import { CompareNav } from "./nav";
import { allReferences, referenceAt } from "#app/services/comparison/references.server";
import { useFilters } from "./useFilters";
import type { Route } from "./+types/claims";

const DEAREST_MINOR = 1000;

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const search = new URL(request.url).searchParams;
  const typed = parseNumber(search.get("tariff") ?? String(TARIFF_MINOR));
  const tariff = typeof typed === "number" && typed > 0 && typed <= DEAREST_MINOR ? typed : TARIFF_MINOR;
  const [asked, references] = await Promise.all([referenceAt(db, request), allReferences(db)]);
  const reference = asked ?? newestReferences(references)[0] ?? REFERENCES[0]!;
  const { value, pending } = await onDesk(db, request, "claims", { reference, tariffMinor: tariff });
  return {
    ...value,
    pending,
    tariff,
    reference: { key: reference.name, name: referenceName(reference) },
    names: newestReferences(references).map(({ name }) => name),
  };
}

/** Under which reference, and what the current costs. */
function Asked({ loaderData }: { readonly loaderData: Route.ComponentProps["loaderData"] }) {
  const { tariff, reference, names } = loaderData;
  const { search, pick } = useFilters();
  return (
    <Form>
      <Filters>
        <Pick
          name="under"
          label="Under"
          value={search.get("under") ?? reference.key}
          onPick={pick}
          options={names.map((name) => [name, name])}
        />
        <label className="grid gap-0.5 text-sm">
          <span className="text-quiet">A kWh costs, in cents</span>
          <input
            name="tariff"
            className="input w-24"
            inputMode="decimal"
            defaultValue={tariff}
            onBlur={(event) => pick("tariff", event.target.value)}
          />
        </label>
      </Filters>
    </Form>
  );
}

/** Measured range against what is claimed, and what the claim would need. */
export default function Claims({ loaderData }: Route.ComponentProps) {
  const { claimed, left, tariff, reference } = loaderData;
  const say = useSpoken();
  const most =
    1.05 *
    Math.max(
      1,
      ...claimed.flatMap(({ range, ridden, plainM, reports }) => [
        // A span far longer than its figure is cut: the scale ends where the figures do.
        Math.min(spanOf(range).high, 2 * range.mean),
        ridden ? Math.min(spanOf(ridden).high, 2 * ridden.mean) : 0,
        plainM ?? 0,
        ...reports.map(({ claim }) => claim.highM),
      ]),
    );
  return (
    <Page
      title={`Claims and range under ${reference.name}`}
      line="Each claim against the range as ridden, as its maker states it was, and under the reference; and what would make it true."
    >
      <CompareNav />
      <div className="p-4 md:p-6">
        <Asked loaderData={loaderData} />
        {claimed.length ? (
          <>
            <p className="text-sm text-quiet">
              Boxes: claimed, empty where nothing meets it. Dot and line: as ridden, with its 95 % span;
              hollow, under {reference.name}. Thin bar: paper arithmetic, as ridden.
            </p>
            {claimed.map((bike) => (
              <BikeClaims
                key={`${bike.bikeId}/${bike.drive}`}
                bike={bike}
                most={most}
                tariff={tariff}
                under={`under ${reference.name}`}
              />
            ))}
          </>
        ) : (
          <Empty
            step={
              <Link to={href("/bikes")} className="button button-main">
                Bikes
              </Link>
            }
          >
            Claims stand on each bike&apos;s page; a test of the bike sets them against what was measured.
          </Empty>
        )}
        {left.length ? (
          <section className="mt-4 text-sm">
            <h2 className="mb-1">Not brought there</h2>
            <ul>
              {left.map(({ bike, why }) => (
                <li key={`${bike}/${why}`}>
                  {bike}: {say(why)}
                </li>
              ))}
            </ul>
          </section>
        ) : null}
      </div>
    </Page>
  );
}
