import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { SET_UP_FIELDS } from "#core/records";
import { findBike, listSetUps, saveSetUp } from "#db/bikes";
import { RecordForm } from "#ui/forms/recordForm";
import { Acts, othersThan } from "#ui/acts";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { NEW_SET_UP, setUpForm, setUpTexts } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import type { Route } from "./+types/setUp";

const GONE = "There is no such set-up.";

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  if (params.setUpId === "new") return { bike, setUp: NEW_SET_UP, id: null, archived: false, others: [] };
  const id = idOf(params.setUpId, GONE);
  const all = await listSetUps(db, bike.id, { archived: true });
  const setUp = found(
    all.find((each) => each.id === id),
    GONE,
  );
  return { bike, setUp, id, archived: setUp.archived, others: othersThan(id, all) };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const bikeId = idOf(params.bikeId, GONE);
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: setUpForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const id = params.setUpId === "new" ? madeId(request) : idOf(params.setUpId, GONE);
  const db = context.get(dbContext);
  const system = systemOf(request);
  found(await findBike(db, bikeId), "There is no such bike.");
  const { saved, stale } = await saveOrStale(
    () => saveSetUp(db, id, bikeId, submission.value, seenVersion(form)),
    async () =>
      setUpTexts(
        found(
          (await listSetUps(db, bikeId, { archived: true })).find((setUp) => setUp.id === id),
          GONE,
        ),
        system,
      ),
  );
  return stale
    ? staleReply(submission.reply(), stale)
    : redirect(afterChange(href("/bikes/:bikeId", { bikeId }), saved));
}

export default function SetUpPage({
  loaderData: { bike, setUp, id, archived, others },
  actionData,
}: Route.ComponentProps) {
  const system = useSystem();
  const schema = useMemo(() => setUpForm(system), [system]);
  return (
    <Page
      title={id ? `${setUp.name}, ${bike.name}` : `A set-up of ${bike.name}`}
      line="Tyres, pressure, lights and load: what changes between tests of one bike."
      acts={
        id ? (
          <Acts
            kind="setUp"
            id={id}
            name={setUp.name}
            list={href("/bikes/:bikeId", { bikeId: bike.id })}
            archived={archived}
            others={others}
          />
        ) : null
      }
    >
      <div className="max-w-3xl p-4 md:p-6">
        <RecordForm
          of={SET_UP_FIELDS}
          schema={schema}
          values={setUpTexts(setUp, system)}
          version={"version" in setUp ? Number(setUp.version) : undefined}
          pencil={setUp.pencil}
          focus={id ? undefined : "name"}
          lastResult={actionData}
          save="Save the set-up"
          back={href("/bikes/:bikeId", { bikeId: bike.id })}
        />
      </div>
      {id ? (
        <div className="px-4 pb-6 md:px-6">
          <History kind="set_up" id={id} />
        </div>
      ) : null}
    </Page>
  );
}
