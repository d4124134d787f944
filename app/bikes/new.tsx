import { parseWithZod } from "@conform-to/zod/v4";
import { href, data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { systemOf } from "#app/ui/systemCookie";
import { saveBike } from "#db/bikes";
import { Page } from "#ui/page";
import { BikeForm } from "./bikeForm";
import { bikeForm, NEW_BIKE } from "./forms";
import type { Route } from "./+types/new";

export async function action({ request, context }: Route.ActionArgs) {
  const submission = parseWithZod(await request.formData(), {
    schema: bikeForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const id = madeId(request);
  await saveBike(context.get(dbContext), id, submission.value);
  return redirect(href("/bikes/:bikeId/packs/:packId", { bikeId: id, packId: "new" }));
}

export default function NewBike({ actionData }: Route.ComponentProps) {
  return (
    <Page
      title="Add a bike"
      line="Dashed figures are assumed: confirm them or type your own. The pack comes next."
    >
      <div className="max-w-3xl p-4 md:p-6">
        <BikeForm bike={NEW_BIKE} lastResult={actionData} save="Save the bike" back={href("/bikes")} />
      </div>
    </Page>
  );
}
