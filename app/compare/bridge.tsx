import { href, data, Form, Link, redirect } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { testSentence } from "#app/ui/testLine";
import type { Bridge } from "#core/compare";
import { dayText, fixed, formatUncertain, unitToken, writeUncertain } from "#core/base";
import { findReference, newestReferences, referenceKey, referenceName } from "#core/bike";
import { listPublished, publish } from "#db/references";
import { Page, Problems } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { WhatIs } from "#ui/whatIs";
import { pendingOnDesk } from "#app/services/analysis.server";
import { onDesk } from "#app/services/comparison/answer.server";
import { stillReckoning } from "#app/services/patience.server";
import { DrawsCheck } from "./drawsCheck";
import { allReferences } from "#app/services/comparison/references.server";
import { RankSettles } from "./rankSettles";
import { SettleList } from "./settleList";
import { Waterfall } from "./waterfall";
import type { Route } from "./+types/bridge";

const GONE = "There is no such test, or it has no figure yet.";

/** The test and the reference an address names. */
async function atAddress({ request, params, context }: Route.LoaderArgs | Route.ActionArgs) {
  const db = context.get(dbContext);
  const id = idOf(params.testId, GONE);
  const key = new URL(request.url).searchParams.get("under") ?? "House";
  const references = await allReferences(db);
  const reference = findReference(references, key);
  if (!reference) throw data(`There is no reference called ${key}.`, { status: 404 });
  const { value, pending } = await onDesk(db, request, "bridge", { testId: id, reference });
  if (!value && pending > 0) stillReckoning(await pendingOnDesk(db));
  return { db, found: found(value, GONE), reference, references, pending };
}

export async function loader(args: Route.LoaderArgs) {
  const { db, found: bridged, reference, references, pending } = await atAddress(args);
  const { line, bridge, drawable, settles, rank, tests } = bridged;
  return {
    line,
    drawable,
    settles,
    rank,
    tests,
    reference,
    pending,
    names: newestReferences(references).map(({ name }) => name),
    bridge,
    published: await listPublished(db, line.id),
  };
}

/** Publishes the figure as it stands, with the very conditions it is under. */
export async function action(args: Route.ActionArgs) {
  const { db, found: bridged, reference } = await atAddress(args);
  const { bridge } = bridged;
  if (!bridge.ok) throw data("There is no figure to publish.", { status: 400 });
  await publish(db, bridged.line.id, bridge.value.under.whPerM, reference);
  return redirect(
    `${href("/compare/bridge/:testId", { testId: bridged.line.id })}?under=${encodeURIComponent(referenceKey(reference))}`,
  );
}

/** The figure under the reference with its error, and the measured one. */
function Headline({ bridge: { under, measured } }: { readonly bridge: Bridge }) {
  const system = useSystem();
  const { value, spread, unit } = writeUncertain(under.whPerM, "energyPerDistance", system);
  return (
    <p className={under.beyond.length ? "pencil" : ""}>
      <span className="text-5xl leading-none font-bold">{value}</span>
      <span className="text-xl"> {spread}</span> {unit}
      <span className="text-quiet not-italic">
        , measured {formatUncertain(measured, "energyPerDistance", system)}
      </span>
    </p>
  );
}

/** "20 mph but 18 mph", with as many decimals as keep the two apart. */
function speedsApart(wantedMps: number, heldMps: number): string {
  const decimals = Math.abs(wantedMps - heldMps) > 0.5 ? 0 : Math.abs(wantedMps - heldMps) > 0.05 ? 1 : 2;
  return `${unitToken(wantedMps, "speed", decimals)} but ${unitToken(heldMps, "speed", decimals)}`;
}

type Data = Route.ComponentProps["loaderData"];

/** What was published of it, and a button for this figure. */
function Published({ published }: { readonly published: Data["published"] }) {
  const system = useSystem();
  return (
    <section>
      <h2 className="mb-2">Published</h2>
      {published.length ? (
        <ul>
          {published.map(({ id, at, whPerM, reference: set }) => (
            <li key={id} className="flex flex-wrap justify-between gap-x-3 border-b border-rule py-1">
              <span>
                {dayText(at.slice(0, 10))}, under {referenceName(set)}
              </span>
              <span>{formatUncertain(whPerM, "energyPerDistance", system)}</span>
            </li>
          ))}
        </ul>
      ) : (
        <p className="text-sm text-quiet">
          Nothing yet. A published figure keeps the conditions it was brought to, whatever becomes of the
          reference.
        </p>
      )}
      <Form method="post" className="mt-3">
        <button className="button">Publish this figure</button>
      </Form>
    </section>
  );
}

/** What nobody noted of the ride: it can be typed. */
function Assumed({ what }: { readonly what: readonly string[] }) {
  const say = useSpoken();
  if (what.length === 0) return null;
  return <p className="pencil mt-3 text-sm">Assumed, because nobody noted it: {what.map(say).join("; ")}.</p>;
}

/** What its doubt is made of. */
function DoubtOf({ bridge, drawable }: { readonly bridge: Bridge; readonly drawable: Data["drawable"] }) {
  return (
    <section>
      <h2 className="mb-2">What the doubt is made of</h2>
      <ul>
        {bridge.under.sources
          .filter(({ share }) => share >= 0.01)
          .map(({ name: source, share }) => (
            <li key={source} className="flex justify-between border-b border-rule py-1">
              <span>{source}</span>
              <span>{fixed(100 * share, 0)} %</span>
            </li>
          ))}
      </ul>
      <p className="mt-2 text-sm text-quiet">{bridge.because}</p>
      <DrawsCheck drawable={drawable} whPerM={bridge.under.whPerM} />
    </section>
  );
}

/** The figure under the reference, and what is odd about it. */
function UnderReference({
  bridge,
  tests,
  reference,
}: {
  readonly bridge: Bridge;
  readonly tests: number;
  readonly reference: Data["reference"];
}) {
  const say = useSpoken();
  return (
    <div>
      <Headline bridge={bridge} />
      <p className="mt-1 text-quiet">
        From {tests === 1 ? "this test" : `${tests} tests of this bike`} and all that the desk knows of its
        riders, packs and roads.
      </p>
      {bridge.odd ? <p className="mt-2 text-ochre">{bridge.odd}</p> : null}
      {bridge.under.heldMps === null ? null : (
        <p className="mt-2 text-ochre">
          {say(
            `Its motor does not hold ${speedsApart(reference.conditions.speedMps, bridge.under.heldMps)} ${bridge.under.heldUphill ? "up the hills" : "on the level"}: this is the figure at what it holds.`,
          )}
        </p>
      )}
      {bridge.under.beyond.length ? (
        <p className="mt-2 text-ochre">
          Drawn hollow: more than half of the doubt is {bridge.under.beyond.join(" and ")}, of which no ride
          has told anything yet.
        </p>
      ) : null}
    </div>
  );
}

/** From a measured figure to the same bike under a reference, bar by bar. */
export default function BridgePage({ loaderData }: Route.ComponentProps) {
  const { line, drawable, settles, rank, tests, reference, names, bridge, published } = loaderData;
  const system = useSystem();
  const say = useSpoken();
  const name = referenceName(reference);
  return (
    <Page
      title={`${line.bike} under ${name}`}
      line={testSentence(line.test, { bike: line.bike, setUp: line.setUp, rider: line.rider }, system)}
      next={
        <Link
          to={`${href("/compare")}?under=${encodeURIComponent(referenceKey(reference))}`}
          className="button"
        >
          Standings
        </Link>
      }
    >
      <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-6 p-4 md:p-6">
        <nav aria-label="References" className="flex flex-wrap gap-x-4 text-sm">
          {names.map((each) =>
            each === reference.name ? (
              <b key={each}>{each}</b>
            ) : (
              <Link key={each} to={`?under=${encodeURIComponent(each)}`} className="underline">
                {each}
              </Link>
            ),
          )}
        </nav>
        {bridge.ok ? (
          <>
            <UnderReference bridge={bridge.value} tests={tests} reference={reference} />
            <section className="sheet p-4">
              <h2 className="mb-2">From measured to {name}</h2>
              <WhatIs word="bridge" />
              <Waterfall bridge={bridge.value} reference={name} />
              <Assumed what={bridge.value.assumed} />
            </section>
            <div className="grid gap-6 md:grid-cols-2">
              <DoubtOf bridge={bridge.value} drawable={drawable} />
              <section>
                <h2 className="mb-2">What would make it surer</h2>
                <SettleList
                  sd={bridge.value.under.whPerM.sd}
                  dimension="energyPerDistance"
                  settles={settles}
                />
              </section>
              <section>
                <h2 className="mb-2">What would settle its place</h2>
                <RankSettles rank={rank} />
              </section>
              <Published published={published} />
            </div>
          </>
        ) : (
          <Problems
            title="It cannot be brought there"
            sentences={bridge.problems.map(({ sentence }) => say(sentence))}
          />
        )}
      </div>
    </Page>
  );
}
