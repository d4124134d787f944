import { href, Form, Link } from "react-router";
import { dbContext } from "#app/context";
import { systemOf } from "#app/ui/systemCookie";
import { LEVEL_PLACES, MEASURE, MEASURES, unitOfMeasure } from "#core/compare";
import { GROUNDS } from "#core/fields";
import { DRIVES } from "#core/records";
import { newestReferences, referenceKey, referenceName } from "#core/bike";
import { useAnnounced } from "#ui/announce";
import { Empty, Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { COMMON_WH, readAsk } from "#app/services/comparison/ask";
import { Filters, MoreFilters, Pick } from "./filters";
import { CompareNav } from "./nav";
import { PairPanel } from "./pairPanel";
import { allReferences, referenceAt } from "#app/services/comparison/references.server";
import { StandingsList } from "./standingsList";
import { onDesk } from "#app/services/comparison/answer.server";
import { useFilters } from "./useFilters";
import type { Route } from "./+types/compare";

/** Addresses of the filters behind a word. */
const FILTERS = ["level", "ground", "drive", "bike", "by"] as const;
/** Under a reference speed and rider are given, whatever the level: what is left is who drives. */
const REFERENCE_LEVELS = ["whole ride", "throttle"] as const;

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const system = systemOf(request);
  const ask = readAsk(new URL(request.url).searchParams, system === "metric" ? "whPerKm" : "whPerMi");
  const [reference, references] = await Promise.all([referenceAt(db, request), allReferences(db)]);
  const { value: found, pending } = await onDesk(db, request, "standings", { ask, reference });
  const [first, second] = ask.chosen;
  const pair =
    first && second && first !== second
      ? (await onDesk(db, request, "pair", { ask: { a: [first], b: [second], runs: [] }, system })).value
      : null;
  const brought =
    pair && first && second && reference
      ? (await onDesk(db, request, "pairUnder", { a: [first], b: [second], reference })).value
      : null;
  return {
    ...found,
    pending,
    ask,
    reference: reference && {
      key: referenceKey(reference),
      name: referenceName(reference),
    },
    references: newestReferences(references).map(({ name }) => name),
    pair: pair && { joint: pair.joint, tests: pair.tests, confounders: pair.confounders },
    brought,
  };
}

type Data = Route.ComponentProps["loaderData"];

interface AskedProps {
  readonly loaderData: Data;
  /** One for the whole page: a choice builds on the one made just before it. */
  readonly filters: ReturnType<typeof useFilters>;
}

/** Filters that are seldom set. */
function FurtherFilters({ loaderData, filters: { search, pick } }: AskedProps) {
  const { bikes, levels, reference, ask } = loaderData;
  return (
    <MoreFilters set={FILTERS.some((name) => search.has(name))}>
      <Pick
        name="level"
        label="Level"
        value={ask.level}
        onPick={pick}
        options={(reference ? REFERENCE_LEVELS : [...LEVEL_PLACES, ...levels]).map((name) => [name, name])}
      />
      <Pick
        name="ground"
        label="Ground"
        value={ask.ground ?? ""}
        onPick={pick}
        options={[["", "all grounds"], ...GROUNDS.map((name) => [name, name] as const)]}
      />
      <Pick
        name="drive"
        label="Drive"
        value={ask.drive ?? ""}
        onPick={pick}
        options={[["", "pedal and throttle"], ...DRIVES.map((name) => [name, name] as const)]}
      />
      <Pick
        name="bike"
        label="Bike"
        value={ask.bikeId ?? ""}
        onPick={pick}
        options={[["", "all"], ...bikes]}
      />
      {reference ? null : (
        <Pick
          name="by"
          label="Rows"
          value={ask.by}
          onPick={pick}
          options={[
            ["test", "each test"],
            ["set-up", "bike and set-up"],
          ]}
        />
      )}
    </MoreFilters>
  );
}

/** What is compared: under which reference, which measure, of which tests. */
function Asked({ loaderData, filters, chosen }: AskedProps & { readonly chosen: readonly string[] }) {
  const { reference, references, ask } = loaderData;
  const { search, pick } = filters;
  const common = ask.measure === "rangeCommon" || ask.measure === "climbCommon";
  return (
    <Form>
      {chosen.map((id) => (
        <input key={id} type="hidden" name="test" value={id} />
      ))}
      <Filters>
        <Pick
          name="under"
          label="Under"
          value={reference ? (search.get("under") ?? "") : ""}
          onPick={pick}
          options={[
            ["", "as ridden"],
            ...references.map((name) => [name, name] as const),
            ...(reference && !references.includes(search.get("under") ?? "")
              ? [[search.get("under") ?? "", reference.name] as const]
              : []),
          ]}
        />
        <Pick
          name="show"
          label="Show"
          value={ask.measure}
          onPick={pick}
          options={MEASURES.map((name) => [name, MEASURE[name].title])}
        />
        <FurtherFilters loaderData={loaderData} filters={filters} />
        {common ? (
          <label className="grid gap-0.5 text-sm">
            <span className="text-quiet">Common pack, Wh</span>
            <input
              name="pack"
              className="input w-24"
              inputMode="numeric"
              defaultValue={ask.commonWh}
              placeholder={String(COMMON_WH)}
              onBlur={(event) => pick("pack", event.target.value)}
            />
          </label>
        ) : null}
      </Filters>
    </Form>
  );
}

export default function Compare({ loaderData }: Route.ComponentProps) {
  const { places, pair, reference, ask } = loaderData;
  const system = useSystem();
  const filters = useFilters();
  const { search, change } = filters;
  const chosen = search.getAll("test").slice(0, 2);
  useAnnounced(
    chosen.length === 2 ? "Two chosen: their difference is below." : chosen.length ? "One chosen." : null,
  );
  const choose = (id: string, on: boolean) =>
    change((next) => {
      next.delete("test");
      for (const each of on ? [...chosen, id].slice(-2) : chosen.filter((other) => other !== id))
        next.append("test", each);
    });
  const { title } = MEASURE[ask.measure];
  const unit = unitOfMeasure(ask.measure, system);
  return (
    <Page
      title={`Standings, ${title} ${reference ? `under ${reference.name}` : "as ridden"}`}
      line={
        reference
          ? "Each bike as it would be under the same conditions, by all tests of the desk together, the best first. Open a figure to see how it comes about."
          : "Each test as it was ridden, the best first. Choose two to see their difference, and what else differed."
      }
    >
      <CompareNav />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-[minmax(0,1fr)_20rem]">
        <section className="min-w-0">
          <Asked loaderData={loaderData} filters={filters} chosen={chosen} />
          {places.length === 0 && loaderData.left.length === 0 ? (
            <Empty
              step={
                <Link to={href("/strip/new")} className="button button-main">
                  New test
                </Link>
              }
            >
              Tests with a figure stand here, the best first.{" "}
              {search.size ? "None fits these filters." : "There is none yet."}
            </Empty>
          ) : (
            <StandingsList {...loaderData} unit={unit} chosen={chosen} onChoose={choose} />
          )}
        </section>
        <PairPanel
          pair={pair}
          brought={reference && loaderData.brought ? { ...loaderData.brought, ...reference } : null}
          oneChosen={chosen.length === 1}
        />
      </div>
    </Page>
  );
}
