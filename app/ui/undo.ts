import { redirect } from "react-router";
import { dbContext } from "#app/context";
import { idOf } from "#app/ui/require.server";
import { safePath } from "#app/ui/safePath";
import { undo } from "#db/entities";
import type { Route } from "./+types/undo";

/** Undoes one change and goes back to where it was made. */
export async function action({ request, context }: Route.ActionArgs) {
  const form = await request.formData();
  const done = await undo(
    context.get(dbContext),
    idOf(String(form.get("change") ?? ""), "There is no such change."),
  );
  const to = new URL(safePath(form.get("to"), "/"), "http://here");
  to.searchParams.delete("changed");
  to.searchParams.delete("did");
  to.searchParams.set("undone", done);
  return redirect(`${to.pathname}${to.search}`);
}
