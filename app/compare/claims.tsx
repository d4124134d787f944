import { Form, Link } from "react-router";
import { dbContext } from "#app/context";
import {
  fixed,
  formatQuantity,
  formatUncertain,
  fromSi,
  parseNumber,
  plusOrMinus,
  unitOf,
} from "#core/quantities";
import { newestReferences, referenceName, REFERENCES } from "#core/roadload";
import { Empty, Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { claimedBikes, type ClaimedBike } from "./claims.server";
import { Filters, Pick } from "./filters";
import { CompareNav } from "./nav";
import { allReferences, referenceAt } from "./references.server";
import { useFilters } from "./useFilters";
import type { Route } from "./+types/claims";

/** Price of a kilowatt-hour when nobody types one, minor units. */
const TARIFF_MINOR = 30;
const DEAREST_MINOR = 1000;

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const search = new URL(request.url).searchParams;
  const typed = parseNumber(search.get("tariff") ?? String(TARIFF_MINOR));
  const tariff = typeof typed === "number" && typed > 0 && typed <= DEAREST_MINOR ? typed : TARIFF_MINOR;
  const [asked, references] = await Promise.all([referenceAt(db, request), allReferences(db)]);
  const reference = asked ?? newestReferences(references)[0] ?? REFERENCES[0]!;
  return {
    ...(await claimedBikes(db, reference, tariff)),
    tariff,
    reference: { key: reference.name, name: referenceName(reference) },
    names: newestReferences(references).map(({ name }) => name),
  };
}

const VERDICTS = { holds: "holds", "within reach": "not ruled out", short: "not met" } as const;

/** The claimed span and the measured one over one mile rule. */
function ClaimBar({ bike, most }: { readonly bike: ClaimedBike; readonly most: number }) {
  const percent = (metres: number) => `${(100 * Math.max(0, metres)) / most}%`;
  const by = plusOrMinus(bike.range);
  return (
    <div className="grid gap-1" aria-hidden>
      {bike.reports.map(({ claim, verdict }, i) => (
        <div key={i} className="relative h-3 border-b border-rule">
          <div
            className={`absolute inset-y-0 border border-slate ${verdict === "short" ? "bg-sheet" : "bg-tint"}`}
            style={{ left: percent(claim.lowM), width: `max(3px, ${percent(claim.highM - claim.lowM)})` }}
          />
        </div>
      ))}
      <div className="relative h-4">
        <div
          className="absolute top-1/2 h-0.5 -translate-y-1/2 bg-spruce"
          style={{ left: percent(bike.range.mean - by), width: percent(2 * by) }}
        />
        <div
          className="absolute top-1/2 size-3 -translate-x-1/2 -translate-y-1/2 rounded-full bg-spruce"
          style={{ left: percent(bike.range.mean) }}
        />
        {bike.plainM === null ? null : (
          <div className="absolute inset-y-0 w-0.5 bg-slate" style={{ left: percent(bike.plainM) }} />
        )}
      </div>
    </div>
  );
}

function BikeClaims({
  bike,
  most,
  tariff,
  under,
}: {
  readonly bike: ClaimedBike;
  readonly most: number;
  readonly tariff: number;
  readonly under: string;
}) {
  const system = useSystem();
  const say = useSpoken();
  const money = (minorPerM: number) =>
    `${fixed(fromSi(minorPerM, "pricePerDistance", unitOf("pricePerDistance", system)), 2)} ${bike.currency}`;
  const per = unitOf("distance", system);
  const hundred = 100 * (system === "metric" ? 1000 : 1609.344);
  return (
    <section className="grid gap-x-8 gap-y-3 border-b border-rule py-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <div>
        <h2>
          <Link to={`/compare/bikes/${bike.bikeId}`}>{bike.bike}</Link>
          {bike.drive === "throttle" ? ", throttle" : ""}
        </h2>
        <p className="text-sm text-quiet">
          {formatUncertain(bike.range, "distance", system)} on the {bike.packName},{" "}
          {formatUncertain(bike.whPerM, "energyPerDistance", system)} {under},{" "}
          {bike.tests === 1 ? "one test" : `${bike.tests} tests`}
        </p>
        <div className="mt-3">
          <ClaimBar bike={bike} most={most} />
        </div>
      </div>
      <div className="grid content-start gap-3">
        {bike.reports.length ? (
          bike.reports.map(({ claim, low, high, verdict, sentences }, i) => (
            <div key={i}>
              <p>
                <b className={verdict === "short" ? "text-rust" : ""}>
                  {claim.mode ? `${claim.mode}: ` : ""}
                  {VERDICTS[verdict]}
                </b>
                . {say(sentences.join(" "))}
              </p>
              <p className="text-sm text-quiet">
                It implies {formatQuantity(high.impliedWhPerM, "energyPerDistance", system)}
                {low.impliedWhPerM === high.impliedWhPerM
                  ? ""
                  : ` to ${formatQuantity(low.impliedWhPerM, "energyPerDistance", system)}`}
                ; measured is {fixed(low.ratio, 2)}
                {low.ratio === high.ratio ? "" : ` to ${fixed(high.ratio, 2)}`} times that. Conditions:{" "}
                {claim.conditions || "not stated"}.
              </p>
            </div>
          ))
        ) : (
          <p className="text-quiet">No claim is on file for this drive.</p>
        )}
        <ul className="text-sm">
          {bike.options.map(({ option, addedM, perMetreMinor }) => (
            <li key={`${option.name}/${option.way}`} className="pencil">
              {option.name} {option.way}: {addedM > 0 ? "+" : ""}
              {formatQuantity(addedM, "distance", system, 0)}
              {perMetreMinor !== null && perMetreMinor > 0
                ? `, ${money(perMetreMinor)} for each ${per} more`
                : option.addedMinor === null
                  ? ", no price on file"
                  : ""}
            </li>
          ))}
          <li>
            {fixed((bike.cost.mean * hundred) / 100, 2)} ±{" "}
            {fixed((plusOrMinus(bike.cost) * hundred) / 100, 2)} {bike.currency} of current for 100 {per}, at{" "}
            {fixed(tariff / 100, 2)} a kWh
          </li>
        </ul>
      </div>
    </section>
  );
}

/** Measured range against what is claimed, and what the claim would need. */
export default function Claims({ loaderData }: Route.ComponentProps) {
  const { claimed, left, tariff, reference, names } = loaderData;
  const say = useSpoken();
  const { search, pick } = useFilters();
  const most =
    1.05 *
    Math.max(
      1,
      ...claimed.flatMap(({ range, plainM, reports }) => [
        range.mean + plusOrMinus(range),
        plainM ?? 0,
        ...reports.map(({ claim }) => claim.highM),
      ]),
    );
  return (
    <Page
      title={`Claims and range under ${reference.name}`}
      line="Each claim against the measured range, and what rider power or speed would make it true."
    >
      <CompareNav />
      <div className="p-4 md:p-6">
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
        {claimed.length ? (
          <>
            <p className="text-sm text-quiet">
              Boxes: claimed, empty where not met. Dot and line: measured, with its 95 % span. Upright stroke:
              plain, as ridden.
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
              <Link to="/bikes" className="button button-main">
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
