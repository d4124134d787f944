import { parseWithZod } from "@conform-to/zod/v4";
import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { findBike, saveBike } from "#db/bikes";
import { Page } from "#ui/page";
import { BikeForm } from "./bikeForm";
import { bikeForm, bikeTexts } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import type { Route } from "./+types/edit";

const GONE = "There is no such bike.";

export async function loader({ params, context }: Route.LoaderArgs) {
  return { bike: found(await findBike(context.get(dbContext), idOf(params.bikeId, GONE)), GONE) };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const id = idOf(params.bikeId, GONE);
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: bikeForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const db = context.get(dbContext);
  const system = systemOf(request);
  const { saved, stale } = await saveOrStale(
    () => saveBike(db, id, submission.value, seenVersion(form)),
    async () => bikeTexts(found(await findBike(db, id), GONE), system),
  );
  return stale
    ? staleReply(submission.reply(), stale)
    : redirect(afterChange(href("/bikes/:bikeId", { bikeId: id }), saved));
}

export default function EditBike({ loaderData: { bike }, actionData }: Route.ComponentProps) {
  return (
    <Page title={bike.name} line="What the results rest on: a change reckons every test of this bike again.">
      <div className="max-w-3xl p-4 md:p-6">
        <BikeForm
          bike={bike}
          version={bike.version}
          lastResult={actionData}
          save="Save"
          back={href("/bikes/:bikeId", { bikeId: bike.id })}
        />
      </div>
    </Page>
  );
}
