import { and, eq } from "drizzle-orm";
import { data, Form, redirect, useRevalidator } from "react-router";
import { LEAST_PASSPHRASE } from "#app/services/people/auth.server";
import { countTry } from "#app/services/people/limits.server";
import { DESK_COOKIE, keptCookie } from "#app/services/people/people.server";
import { dayText } from "#core/base";
import { signInAddress } from "#db/people/people";
import { passkey } from "#db/people/schema";
import { Page } from "#ui/page";
import { Asked } from "./door";
import { peopleHere, personHere } from "./here.server";
import { PasskeyAdd } from "./passkeys";
import type { Route } from "./+types/account";

export async function loader({ context }: Route.LoaderArgs) {
  const { db } = peopleHere(context);
  const { userId, name, desks, deskId, role } = personHere(context);
  const keys = await db
    .select({ id: passkey.id, name: passkey.name, createdAt: passkey.createdAt })
    .from(passkey)
    .where(eq(passkey.userId, userId));
  return {
    ...{ name, desks, deskId, role },
    keys: keys.map(({ id, name: device, createdAt }) => ({
      id,
      name: device ?? "a device",
      since: createdAt?.toISOString().slice(0, 10) ?? null,
    })),
  };
}

type Answer =
  | { readonly done: string; readonly problem?: undefined }
  | { readonly problem: string; readonly done?: undefined };

export async function action({ request, context }: Route.ActionArgs) {
  const { auth, db } = peopleHere(context);
  const { userId, name, desks } = personHere(context);
  const form = await request.formData();
  const intent = String(form.get("intent"));
  const refuse = (problem: string) => data<Answer>({ problem }, { status: 400 });
  if (intent === "desk") {
    const id = String(form.get("desk"));
    if (!desks.some((desk) => desk.id === id)) return refuse("You are not at this desk.");
    return redirect("/", { headers: { "Set-Cookie": keptCookie(DESK_COOKIE, id) } });
  }
  if (intent === "dropKey") {
    await db.delete(passkey).where(and(eq(passkey.userId, userId), eq(passkey.id, String(form.get("key")))));
    return data<Answer>({ done: "The passkey is dropped." });
  }
  if (intent === "passphrase") {
    const [current, next] = [String(form.get("current") ?? ""), String(form.get("next") ?? "")];
    if (next.length < LEAST_PASSPHRASE)
      return refuse(`Take ${LEAST_PASSPHRASE} characters or more for the new one.`);
    await countTry(db, request, signInAddress(name));
    const answer = await auth.api.changePassword({
      body: { currentPassword: current, newPassword: next, revokeOtherSessions: true },
      headers: request.headers,
      asResponse: true,
    });
    if (!answer.ok) return refuse("The passphrase you have now is another one.");
    return data<Answer>(
      { done: "The passphrase is changed; everywhere else you are signed out." },
      { headers: answer.headers },
    );
  }
  return refuse("There is nothing like this to do.");
}

/** Who one is at the desk: passphrase, passkeys, desks. */
export default function Account({ loaderData, actionData }: Route.ComponentProps) {
  const { name, role, desks, deskId, keys } = loaderData;
  const { revalidate } = useRevalidator();
  return (
    <Page
      title={name}
      line={`You are ${role} of ${desks.find(({ id }) => id === deskId)?.name || "the first desk"}.`}
      next={
        <Form method="post" action="/sign-out">
          <button className="button">Sign out</button>
        </Form>
      }
    >
      <div className="grid max-w-2xl gap-8 p-4 md:p-6">
        {actionData?.done ? <p role="status">{actionData.done}</p> : null}
        {desks.length > 1 ? (
          <Form method="post" className="flex flex-wrap items-end gap-3">
            <label className="text-sm font-medium">
              Desk
              <select name="desk" className="input mt-1" defaultValue={deskId}>
                {desks.map((desk) => (
                  <option key={desk.id} value={desk.id}>
                    {desk.name || "the first desk"}, {desk.role}
                  </option>
                ))}
              </select>
            </label>
            <button name="intent" value="desk" className="button">
              Go there
            </button>
          </Form>
        ) : null}
        <section className="grid gap-3">
          <h2>Passkeys</h2>
          {keys.length ? (
            <ul className="grid gap-1">
              {keys.map((key) => (
                <li key={key.id}>
                  <Form method="post" className="flex items-baseline gap-3">
                    <span>
                      {key.name}
                      {key.since ? (
                        <span className="text-sm text-quiet"> since {dayText(key.since)}</span>
                      ) : null}
                    </span>
                    <input type="hidden" name="key" value={key.id} />
                    <button name="intent" value="dropKey" className="button button-plain">
                      Drop
                    </button>
                  </Form>
                </li>
              ))}
            </ul>
          ) : (
            <p className="text-quiet">None yet. A passkey signs in without the passphrase.</p>
          )}
          <PasskeyAdd onDone={() => void revalidate()} />
        </section>
        <section>
          <h2 className="mb-2">Passphrase</h2>
          <Form method="post" className="grid gap-4">
            <input type="hidden" name="username" value={name} autoComplete="username" />
            <Asked
              name="current"
              label="The one you have now"
              type="password"
              autoComplete="current-password"
              problem={actionData?.problem}
            />
            <Asked
              name="next"
              label="The new one"
              type="password"
              autoComplete="new-password"
              hint="12 characters or more; a few words make a good one."
            />
            <button name="intent" value="passphrase" className="button justify-self-start">
              Change it
            </button>
          </Form>
        </section>
      </div>
    </Page>
  );
}
