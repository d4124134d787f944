import { parseWithZod } from "@conform-to/zod/v4";
import { data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { findBike, saveBike } from "#db/bikes";
import { Page } from "#ui/page";
import { BikeForm } from "./bikeForm";
import { bikeForm } from "./forms";
import type { Route } from "./+types/edit";

const GONE = "There is no such bike.";

export async function loader({ params, context }: Route.LoaderArgs) {
  return { bike: found(await findBike(context.get(dbContext), idOf(params.bikeId, GONE)), GONE) };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const id = idOf(params.bikeId, GONE);
  const submission = parseWithZod(await request.formData(), {
    schema: bikeForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const change = await saveBike(context.get(dbContext), id, submission.value);
  return redirect(afterChange(`/bikes/${id}`, change));
}

export default function EditBike({ loaderData: { bike }, actionData }: Route.ComponentProps) {
  return (
    <Page title={bike.name} line="What the results rest on: a change reckons every test of this bike again.">
      <div className="max-w-3xl p-4 md:p-6">
        <BikeForm bike={bike} lastResult={actionData} save="Keep" back={`/bikes/${bike.id}`} />
      </div>
    </Page>
  );
}
