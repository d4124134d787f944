import { data, Link } from "react-router";
import { dbContext } from "#app/context";
import { resultsOf } from "#app/reckoning.server";
import { found, idOf } from "#app/ui/require.server";
import { testSentence } from "#app/ui/testLine";
import { bridgeTo, type Bridge } from "#core/compare";
import { fixed, formatUncertain, writeUncertain } from "#core/quantities";
import type { Factor } from "#core/roadload";
import { findTest } from "#db/tests";
import { Page, Problems } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { broughtOf, referenceNamed } from "./reference.server";
import { Waterfall } from "./waterfall";
import type { Route } from "./+types/bridge";

const GONE = "There is no such test.";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const { rehearsal: _rehearsal, ...line } = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const name = new URL(request.url).searchParams.get("under") ?? "House";
  const reference = referenceNamed(name);
  if (!reference) throw data(`There is no reference called ${name}.`, { status: 404 });
  const full = { ...line, rehearsal: null };
  const result = (await resultsOf(db, [full])).get(line.id);
  const results = result?.ok ? result.value : null;
  const brought = (await broughtOf(db, [full], () => results)).get(line.id);
  const test = found(brought, "This test has no figure yet.");
  return {
    line,
    reference,
    bikeKg: test.bikeKg,
    assumedMass: test.assumedMass,
    bridge: bridgeTo(test.ridden, test.bikeKg, reference),
  };
}

/** What each factor is in words: what the reference has of it that the ride had not. */
const FACTOR_WORDS: Readonly<Record<Factor, string>> = {
  mass: "weight of rider and load",
  wind: "wind",
  climb: "climb",
  air: "temperature and height of the air",
  speed: "speed",
  ground: "ground",
  rider: "what the rider puts in",
  stops: "stops",
  lights: "lights",
};

/** The figure under the reference with its error, and the measured one. */
function Headline({ bridge: { under, measured } }: { readonly bridge: Bridge }) {
  const system = useSystem();
  const { value, error, unit } = writeUncertain(under.whPerM, "energyPerDistance", system);
  return (
    <p className={under.beyond.length ? "pencil" : ""}>
      <span className="text-5xl leading-none font-bold">{value}</span>
      <span className="text-xl"> ± {error}</span> {unit}
      <span className="text-quiet not-italic">
        , measured {formatUncertain(measured, "energyPerDistance", system)}
      </span>
    </p>
  );
}

/** From a measured figure to the same bike under a reference, bar by bar. */
export default function BridgePage({ loaderData }: Route.ComponentProps) {
  const { line, reference, bridge, bikeKg, assumedMass } = loaderData;
  const system = useSystem();
  const say = useSpoken();
  return (
    <Page
      title={`${line.bikeName} under ${reference.name}`}
      line={testSentence(
        line.test,
        { bike: line.bikeName, setUp: line.setUpName, rider: line.riderName },
        system,
      )}
      next={
        <Link to={`/compare?under=${encodeURIComponent(reference.name)}`} className="button">
          Standings
        </Link>
      }
    >
      <div className="grid max-w-4xl grid-cols-[minmax(0,1fr)] gap-6 p-4 md:p-6">
        {bridge.ok ? (
          <>
            <Headline bridge={bridge.value} />
            {bridge.value.under.beyond.length ? (
              <p className="text-ochre">
                Drawn hollow, for{" "}
                {bridge.value.under.beyond.map((factor) => FACTOR_WORDS[factor]).join(" and ")}: the reference
                lies so far from the ride that the road load, not the ride, says most of it.
              </p>
            ) : null}
            <section className="sheet p-4">
              <h2 className="mb-2">The way there</h2>
              <Waterfall bridge={bridge.value} reference={reference.name} words={FACTOR_WORDS} />
            </section>
            <section>
              <h2 className="mb-2">What the doubt is made of</h2>
              <ul>
                {bridge.value.under.sources
                  .filter(({ share }) => share >= 0.01)
                  .map(({ name, share }) => (
                    <li key={name} className="flex justify-between border-b border-rule py-1">
                      <span>{name}</span>
                      <span>{fixed(100 * share, 0)} %</span>
                    </li>
                  ))}
              </ul>
              <p className="mt-2 text-sm text-quiet">
                The test took {fixed(bridge.value.under.lambda, 2)} times what the road load says of it, and
                keeps that under {reference.name}.{" "}
                {assumedMass ? `Nobody weighed the bike: ${fixed(bikeKg, 0)} kg are assumed.` : ""}
              </p>
            </section>
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
