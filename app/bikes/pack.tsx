import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { findBike, listPacks, savePack } from "#db/bikes";
import { Cautions } from "#ui/cautions";
import { PACK_FIELDS } from "#core/records";
import { RecordForm } from "#ui/forms/recordForm";
import { Acts, othersThan } from "#ui/acts";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { NEW_PACK, packForm, packTexts } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import type { Route } from "./+types/pack";

const GONE = "There is no such pack.";

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  if (params.packId === "new") return { bike, pack: NEW_PACK, id: null, archived: false, others: [] };
  const id = idOf(params.packId, GONE);
  const all = await listPacks(db, bike.id, { archived: true });
  const pack = found(
    all.find((each) => each.id === id),
    GONE,
  );
  return { bike, pack, id, archived: pack.archived, others: othersThan(id, all) };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const bikeId = idOf(params.bikeId, GONE);
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: packForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const id = params.packId === "new" ? madeId(request) : idOf(params.packId, GONE);
  const db = context.get(dbContext);
  const system = systemOf(request);
  found(await findBike(db, bikeId), "There is no such bike.");
  const { saved, stale } = await saveOrStale(
    () => savePack(db, id, bikeId, submission.value, seenVersion(form)),
    async () =>
      packTexts(
        found(
          (await listPacks(db, bikeId, { archived: true })).find((pack) => pack.id === id),
          GONE,
        ),
        system,
      ),
  );
  return stale
    ? staleReply(submission.reply(), stale)
    : redirect(afterChange(href("/bikes/:bikeId", { bikeId }), saved));
}

export default function Pack({
  loaderData: { bike, pack, id, archived, others },
  actionData,
}: Route.ComponentProps) {
  const system = useSystem();
  const schema = useMemo(() => packForm(system), [system]);
  return (
    <Page
      title={id ? `${pack.name} of ${bike.name}` : `A pack for ${bike.name}`}
      line="As its label says; a measured capacity beats the label."
      acts={
        id ? (
          <Acts
            kind="pack"
            id={id}
            name={pack.name}
            list={href("/bikes/:bikeId", { bikeId: bike.id })}
            archived={archived}
            others={others}
          />
        ) : null
      }
    >
      <div className="max-w-3xl p-4 md:p-6">
        <RecordForm
          of={PACK_FIELDS}
          schema={schema}
          values={packTexts(pack, system)}
          version={"version" in pack ? Number(pack.version) : undefined}
          pencil={pack.pencil}
          focus={id ? undefined : "labelWh"}
          lastResult={actionData}
          save="Save the pack"
          back={href("/bikes/:bikeId", { bikeId: bike.id })}
        >
          <Cautions of="pack" most={3} />
        </RecordForm>
      </div>
      {id ? (
        <div className="px-4 pb-6 md:px-6">
          <History kind="pack" id={id} />
        </div>
      ) : null}
    </Page>
  );
}
