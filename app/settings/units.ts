import { redirect } from "react-router";
import { systemCookie } from "#app/ui/systemCookie";
import type { Route } from "./+types/units";

/** Switches units and goes back to the page the switch was on. */
export async function action({ request }: Route.ActionArgs) {
  const form = await request.formData();
  const system = form.get("system") === "metric" ? "metric" : "imperial";
  const back = String(form.get("back") ?? "/");
  const here = /^\/(?!\/)/.test(back) && !back.includes("\\") ? back : "/";
  return redirect(here, { headers: { "Set-Cookie": systemCookie(system) } });
}
