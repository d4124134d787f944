import { redirect } from "react-router";
import { safePath } from "#app/ui/safePath";
import { numbersCookie } from "#app/ui/readersLanguage";
import { systemCookie } from "#app/ui/systemCookie";
import type { Route } from "./+types/units";

/** Switches units, or how numbers are written, and goes back to the page the switch was on. */
export async function action({ request }: Route.ActionArgs) {
  const form = await request.formData();
  const numbers = form.get("numbers");
  const cookie =
    numbers === null
      ? systemCookie(form.get("system") === "metric" ? "metric" : "imperial")
      : numbersCookie(numbers === "point" || numbers === "comma" ? numbers : "language");
  return redirect(safePath(form.get("back"), "/"), { headers: { "Set-Cookie": cookie } });
}
