import { redirect } from "react-router";
import { peopleHere } from "./here.server";
import type { Route } from "./+types/signOut";

/** Ends the session of the one who asks. */
export async function action({ request, context }: Route.ActionArgs) {
  const { auth } = peopleHere(context);
  const answer = await auth.api.signOut({ headers: request.headers, asResponse: true });
  return redirect("/sign-in", { headers: answer.headers });
}

export const loader = () => redirect("/");
