import { Form, redirect } from "react-router";
import { bySecret } from "#app/services/people/limits.server";
import { keptCookie, PHONE_COOKIE } from "#app/services/people/people.server";
import { findCode, pairPhone } from "#db/people/phones";
import { Door } from "./door";
import { peopleHere } from "./here.server";
import type { Route } from "./+types/pair";

const GONE = "This code was scanned already or is over ten minutes old: show a new one at the desk.";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const { db } = peopleHere(context);
  const { name } = await bySecret(db, request, () => findCode(db, params.code), GONE);
  return { name };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const { db } = peopleHere(context);
  const paired = await bySecret(db, request, () => pairPhone(db, params.code), GONE);
  const [testId] = paired.tests;
  return redirect(testId ? `/ride/${testId}` : "/ride", {
    headers: { "Set-Cookie": keptCookie(PHONE_COOKIE, paired.secret) },
  });
}

/** Pairing a phone: what the code leads to. */
export default function Pair({ loaderData: { name } }: Route.ComponentProps) {
  return (
    <Door
      title={`Pair this phone as “${name}”`}
      line="It may then add to the rides it is paired for, with and without signal, and see nothing else of the desk."
    >
      <Form method="post">
        <button className="button button-main w-full">Pair this phone</button>
      </Form>
      <p className="text-sm text-quiet">Read and type only when stopped.</p>
    </Door>
  );
}
