import { data, Form, redirect } from "react-router";
import { bySecret } from "#app/services/people/limits.server";
import { passphraseProblem } from "#app/services/people/passphrase.server";
import {
  addMember,
  findInvitation,
  findUserNamed,
  signInAddress,
  spendInvitation,
  voidResets,
} from "#db/people/people";
import { Asked, Door } from "./door";
import { peopleHere } from "./here.server";
import type { Route } from "./+types/invited";

const GONE = "This link was used, is too old, or was taken back: ask for a new one.";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const { db } = peopleHere(context);
  const { name, role, reset } = await bySecret(db, request, () => findInvitation(db, params.secret), GONE);
  return { name: reset?.name ?? name, role, isReset: reset !== null };
}

interface Problems {
  readonly name?: string;
  readonly passphrase?: string;
}

/** What is wrong with what was typed; empty when nothing is. */
function problemsIn(name: string, passphrase: string, again: string): Problems {
  if (!name.trim() || name.length > 60) return { name: "Type the name you go by, up to 60 characters." };
  const problem = passphraseProblem(passphrase, name);
  if (problem) return { passphrase: problem };
  if (again !== passphrase) return { passphrase: "The two differ: type the passphrase twice." };
  return {};
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const { auth, db } = peopleHere(context);
  const invitation = await bySecret(db, request, () => findInvitation(db, params.secret), GONE);
  const form = await request.formData();
  const text = (field: string) => String(form.get(field) ?? "");
  const { reset } = invitation;
  const name = reset?.name ?? text("name").trim();
  const problems = problemsIn(name, text("passphrase"), text("again"));
  if (!reset && !problems.name && (await findUserNamed(db, name)))
    return data(
      { problems: { name: "Somebody goes by this name already: add another word." } },
      { status: 409 },
    );
  if (Object.keys(problems).length) return data({ problems, name }, { status: 400 });
  if (!(await spendInvitation(db, invitation))) throw data(GONE, { status: 410 });
  const email = signInAddress(name);
  const password = text("passphrase");
  if (reset) {
    const { internalAdapter, password: hasher } = await auth.$context;
    await internalAdapter.updatePassword(reset.userId, await hasher.hash(password));
    await internalAdapter.deleteUserSessions(reset.userId);
    await voidResets(db, reset.userId);
  } else {
    const { user } = await auth.api.signUpEmail({ body: { name, email, password } });
    await addMember(db, invitation.deskId, user.id, invitation.role);
  }
  const answer = await auth.api.signInEmail({
    body: { email, password, rememberMe: true },
    headers: request.headers,
    asResponse: true,
  });
  return redirect("/", { headers: answer.headers });
}

/** Coming in by an invitation, or setting a passphrase anew. */
export default function Invited({ loaderData: { name, role, isReset }, actionData }: Route.ComponentProps) {
  const problems: Problems = actionData?.problems ?? {};
  return (
    <Door
      title={isReset ? "A new passphrase" : "Welcome to the desk"}
      line={
        isReset ? `For ${name}. Whoever is signed in under this name is signed out.` : `You come as ${role}.`
      }
    >
      <Form method="post" className="grid gap-4">
        {isReset ? (
          <input type="hidden" name="name" value={name} autoComplete="username" />
        ) : (
          <Asked
            name="name"
            label="Name you go by"
            autoComplete="username"
            value={name}
            problem={problems.name}
            focus
          />
        )}
        <Asked
          name="passphrase"
          label="Passphrase"
          type="password"
          autoComplete="new-password"
          hint="12 characters or more; a few words make a good one."
          problem={problems.passphrase}
        />
        <Asked name="again" label="Passphrase, once more" type="password" autoComplete="new-password" />
        <button className="button button-main">{isReset ? "Set it" : "Come in"}</button>
      </Form>
    </Door>
  );
}
