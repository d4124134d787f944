import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { INSTRUMENT_FIELDS } from "#core/records";
import { listInstruments, saveInstrument } from "#db/bikes";
import { Acts } from "#ui/acts";
import { RecordForm } from "#ui/forms/recordForm";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { instrumentForm, instrumentTexts, NEW_INSTRUMENT } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import type { Route } from "./+types/instrument";

const GONE = "There is no such instrument.";

export async function loader({ params, context }: Route.LoaderArgs) {
  if (params.instrumentId === "new") return { instrument: NEW_INSTRUMENT, id: null };
  const id = idOf(params.instrumentId, GONE);
  const all = await listInstruments(context.get(dbContext), { archived: true });
  return {
    instrument: found(
      all.find((each) => each.id === id),
      GONE,
    ),
    id,
  };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: instrumentForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const id = params.instrumentId === "new" ? madeId(request) : idOf(params.instrumentId, GONE);
  const db = context.get(dbContext);
  const system = systemOf(request);
  const { saved, stale } = await saveOrStale(
    () => saveInstrument(db, id, submission.value, seenVersion(form)),
    async () =>
      instrumentTexts(
        found(
          (await listInstruments(db, { archived: true })).find((each) => each.id === id),
          GONE,
        ),
        system,
      ),
  );
  return stale ? staleReply(submission.reply(), stale) : redirect(afterChange(href("/bikes"), saved));
}

export default function InstrumentPage({ loaderData: { instrument, id }, actionData }: Route.ComponentProps) {
  const system = useSystem();
  const schema = useMemo(() => instrumentForm(system), [system]);
  return (
    <Page
      title={id ? instrument.name : "Add a meter, logger or charger"}
      line="The log finds it by its name; what is left empty is the usual for its kind."
      acts={
        id ? (
          <Acts
            kind="instrument"
            id={id}
            name={instrument.name}
            list={href("/bikes")}
            archived={"archived" in instrument && instrument.archived === true}
          />
        ) : null
      }
    >
      <div className="max-w-2xl p-4 md:p-6">
        <RecordForm
          of={INSTRUMENT_FIELDS}
          schema={schema}
          values={instrumentTexts(instrument, system)}
          version={"version" in instrument ? Number(instrument.version) : undefined}
          focus={id ? undefined : "name"}
          lastResult={actionData}
          save="Save it"
          back={href("/bikes")}
        >
          <p className="border-l-4 border-ochre-fill bg-sheet px-4 py-3 text-sm">
            Clamp and inline meters only on wiring made for them. Anything inside a pack or controller is for
            a licensed technician.
          </p>
        </RecordForm>
      </div>
      {id ? (
        <div className="px-4 pb-6 md:px-6">
          <History kind="instrument" id={id} />
        </div>
      ) : null}
    </Page>
  );
}
