import { redirect } from "react-router";
import { safePath } from "#app/ui/safePath";
import { systemCookie } from "#app/ui/systemCookie";
import type { Route } from "./+types/units";

/** Switches units and goes back to the page the switch was on. */
export async function action({ request }: Route.ActionArgs) {
  const form = await request.formData();
  const system = form.get("system") === "metric" ? "metric" : "imperial";
  return redirect(safePath(form.get("back"), "/"), { headers: { "Set-Cookie": systemCookie(system) } });
}
