import { data, redirect } from "react-router";
import { demoContext, peopleContext } from "#app/context";
import { fillInBackground } from "#app/services/analysis.server";
import { fromDemo, mayLookAround, toDemo } from "#app/services/people/demo.server";
import { principalContext } from "#app/services/people/principal";
import { setDemoDesk } from "#db/seed";
import { listBikes } from "#db/bikes";
import type { Route } from "./+types/demo";

type Context = Route.LoaderArgs["context"];

const lookAround = (context: Context) =>
  redirect("/", { headers: { "set-cookie": toDemo(context.get(peopleContext) !== null) } });

/** The address that `./barometron demo` prints: to the demo desk, where it is set. */
export async function loader({ context }: Route.LoaderArgs) {
  const isSet = (await listBikes(context.get(demoContext))).length > 0;
  return isSet && mayLookAround(context.get(principalContext)) ? lookAround(context) : redirect("/");
}

/** Goes to the demo desk, which is set when the first one comes; or back to one's own. */
export async function action({ request, context }: Route.ActionArgs) {
  const form = await request.formData();
  if (form.get("intent") === "leave")
    return redirect("/", { headers: { "set-cookie": fromDemo(context.get(peopleContext) !== null) } });
  if (!mayLookAround(context.get(principalContext)))
    throw data("The demo desk is for whoever keeps this machine.", { status: 403 });
  const demo = context.get(demoContext);
  if (await setDemoDesk(demo)) fillInBackground(demo);
  return lookAround(context);
}
