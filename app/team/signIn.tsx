import { data, Form, redirect, useSearchParams } from "react-router";
import { principalContext } from "#app/services/people/principal";
import { countTry, forgetTries } from "#app/services/people/limits.server";
import { safePath } from "#app/ui/safePath";
import { signInAddress } from "#db/people/people";
import { Asked, Door } from "./door";
import { peopleHere } from "./here.server";
import { PasskeySignIn } from "./passkeys";
import type { Route } from "./+types/signIn";

export function loader({ request, context }: Route.LoaderArgs) {
  peopleHere(context);
  const to = safePath(new URL(request.url).searchParams.get("to"), "/");
  if (context.get(principalContext).kind === "person") throw redirect(to);
  return null;
}

/** Whoever it was, the same sentence: a name alone tells nothing. */
const WRONG = "Name and passphrase do not fit together.";

export async function action({ request, context }: Route.ActionArgs) {
  const { auth, db } = peopleHere(context);
  const form = await request.formData();
  const [name, passphrase] = [String(form.get("name") ?? ""), String(form.get("passphrase") ?? "")];
  const email = signInAddress(name);
  await countTry(db, request, email);
  const answer = await auth.api.signInEmail({
    body: { email, password: passphrase.slice(0, 200), rememberMe: true },
    headers: request.headers,
    asResponse: true,
  });
  if (!answer.ok) return data({ name, problem: WRONG }, { status: 401 });
  await forgetTries(db, request, email);
  return redirect(safePath(form.get("to"), "/"), { headers: answer.headers });
}

/** Signing in. */
export default function SignIn({ actionData }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const to = search.get("to") ?? "/";
  return (
    <Door title="Sign in" line="This desk is shared. Its owner invites you by a link.">
      <Form method="post" className="grid gap-4">
        <input type="hidden" name="to" value={to} />
        <Asked
          name="name"
          label="Name"
          autoComplete="username webauthn"
          value={actionData?.name ?? ""}
          focus
        />
        <Asked
          name="passphrase"
          label="Passphrase"
          type="password"
          autoComplete="current-password"
          problem={actionData?.problem}
        />
        <button className="button button-main">Sign in</button>
      </Form>
      <PasskeySignIn to={to} />
      <p className="text-sm text-quiet">
        Forgotten? On the machine that serves the desk, <code>./barometron people reset NAME</code> prints a
        link that sets a new passphrase.
      </p>
    </Door>
  );
}
