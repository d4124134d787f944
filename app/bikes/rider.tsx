import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { listRiders, saveRider } from "#db/bikes";
import { Acts, othersThan } from "#ui/acts";
import { RecordForm } from "#ui/forms/recordForm";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { RIDER_FIELDS } from "#core/records";
import { NEW_RIDER, riderForm, riderTexts } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import type { Route } from "./+types/rider";

const EFFORT_LINE =
  "Two efforts whose watts you know, from a trainer or a crank meter. With them a heart rate held all day gives two bikes the same rider.";
const GONE = "There is no such rider.";

export async function loader({ params, context }: Route.LoaderArgs) {
  if (params.riderId === "new") return { rider: NEW_RIDER, id: null, archived: false, others: [] };
  const id = idOf(params.riderId, GONE);
  const riders = await listRiders(context.get(dbContext), { archived: true });
  const rider = found(
    riders.find((each) => each.id === id),
    GONE,
  );
  return { rider, id, archived: rider.archived, others: othersThan(id, riders) };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: riderForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const db = context.get(dbContext);
  const system = systemOf(request);
  const id = params.riderId === "new" ? madeId(request) : idOf(params.riderId, GONE);
  const { saved, stale } = await saveOrStale(
    () => saveRider(db, id, submission.value, seenVersion(form)),
    async () =>
      riderTexts(
        found(
          (await listRiders(db, { archived: true })).find((rider) => rider.id === id),
          GONE,
        ),
        system,
      ),
  );
  return stale ? staleReply(submission.reply(), stale) : redirect(afterChange(href("/bikes"), saved));
}

export default function RiderPage({
  loaderData: { rider, id, archived, others },
  actionData,
}: Route.ComponentProps) {
  const system = useSystem();
  const schema = useMemo(() => riderForm(system), [system]);
  return (
    <Page
      title={id ? rider.name : "Add a rider"}
      line="First names are enough. Weight dressed, with water and camera."
      acts={
        id ? (
          <Acts
            kind="rider"
            id={id}
            name={rider.name}
            list={href("/bikes")}
            archived={archived}
            others={others}
          />
        ) : null
      }
    >
      <div className="max-w-xl p-4 md:p-6">
        <RecordForm
          of={RIDER_FIELDS}
          schema={schema}
          values={riderTexts(rider, system)}
          version={"version" in rider ? Number(rider.version) : undefined}
          focus={id ? undefined : "name"}
          notes={{ "Effort line": EFFORT_LINE }}
          lastResult={actionData}
          save="Save the rider"
          back={href("/bikes")}
        />
      </div>
      {id ? (
        <div className="px-4 pb-6 md:px-6">
          <History kind="rider" id={id} />
        </div>
      ) : null}
    </Page>
  );
}
