import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { href, data, Link, redirect } from "react-router";
import { dbContext } from "#app/context";
import { systemOf } from "#app/ui/systemCookie";
import { formatQuantity, aMile, type System } from "#core/base";
import { REFERENCE_FIELDS, type ReferenceRecord } from "#core/records";
import {
  findReference,
  newestReferences,
  REFERENCES,
  referenceKey,
  referenceName,
  type Reference,
} from "#core/bike";
import { saveReference } from "#db/references";
import { RecordForm } from "#ui/forms/recordForm";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { CompareNav } from "./nav";
import { referenceForm, referenceTexts } from "./referenceForm";
import { allReferences } from "#app/services/comparison/references.server";
import type { Route } from "./+types/references";

export async function loader({ request, context }: Route.LoaderArgs) {
  const references = await allReferences(context.get(dbContext));
  const key = new URL(request.url).searchParams.get("change") ?? "House";
  return {
    references: newestReferences(references),
    from: findReference(references, key) ?? REFERENCES[0]!,
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const submission = parseWithZod(await request.formData(), {
    schema: referenceForm(systemOf(request)) as never,
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const body = submission.value as ReferenceRecord;
  const shipped = REFERENCES.find(({ name }) => name === body.name)?.version ?? 0;
  const version = await saveReference(db, body, shipped);
  return redirect(`${href("/compare")}?under=${encodeURIComponent(`${body.name}@${version}`)}`);
}

/** The conditions of a reference in one sentence. */
export function conditionsText({ carriedKg, conditions }: Reference, system: System): string {
  const {
    speedMps,
    ground,
    headwindMps = 0,
    gainMPerMi = 0,
    stopsPerMi = 0,
    tempC = 20,
    altitudeM = 0,
    lightsOn,
    riderW = 0,
  } = conditions;
  return [
    `${formatQuantity(carriedKg, "mass", system, 0)} of rider and load`,
    formatQuantity(speedMps, "speed", system, 0),
    ground ?? "asphalt",
    headwindMps === 0 ? "calm" : `${formatQuantity(headwindMps, "speed", system, 0)} against`,
    `climb of ${formatQuantity(aMile(gainMPerMi), "climbRate", system)}`,
    formatQuantity(aMile(stopsPerMi), "stopRate", system),
    formatQuantity(tempC, "temperature", system),
    ...(altitudeM ? [`${formatQuantity(altitudeM, "climb", system)} up`] : []),
    lightsOn ? "lights on" : "lights off",
    `${riderW} W from the rider, none on the throttle`,
  ].join(", ");
}

/** The conditions bikes are brought to, and a form for one's own. */
export default function References({ loaderData, actionData }: Route.ComponentProps) {
  const { references, from } = loaderData;
  const system = useSystem();
  const schema = useMemo(() => referenceForm(system), [system]);
  return (
    <Page
      title="References"
      line="The conditions bikes are brought to. A change makes a new version; what was published keeps the one it used."
    >
      <CompareNav />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-2">
        <ul>
          {references.map((reference) => (
            <li key={referenceKey(reference)} className="border-b border-rule py-3">
              <p className="flex justify-between gap-3">
                <Link
                  to={`${href("/compare")}?under=${encodeURIComponent(reference.name)}`}
                  className="font-bold"
                >
                  {referenceName(reference)}
                </Link>
                <Link to={`?change=${encodeURIComponent(reference.name)}`} className="text-sm underline">
                  change
                </Link>
              </p>
              <p className="text-sm text-quiet">{conditionsText(reference, system)}</p>
            </li>
          ))}
        </ul>
        <section>
          <h2 className="mb-2">{`From ${from.name}`}</h2>
          <RecordForm
            key={referenceKey(from)}
            of={REFERENCE_FIELDS}
            schema={schema}
            values={referenceTexts(from, system)}
            lastResult={actionData as never}
            save="Save as a new version"
          />
        </section>
      </div>
    </Page>
  );
}
