import { and, eq } from "drizzle-orm";
import Bowser from "bowser";
import { data, Form, redirect, useRevalidator } from "react-router";
import { countTry } from "#app/services/people/limits.server";
import { passphraseProblem } from "#app/services/people/passphrase.server";
import { DESK_COOKIE, keptCookie } from "#app/services/people/people.server";
import { dayText } from "#core/base";
import { signInAddress, voidResets } from "#db/people/people";
import { endSession, sessionsOf } from "#db/people/sessions";
import { passkey } from "#db/people/schema";
import { Page } from "#ui/page";
import { Asked } from "./door";
import { peopleHere, personHere } from "./here.server";
import { PasskeyAdd } from "./passkeys";
import type { Route } from "./+types/account";

/** What somebody is signed in with, in words: "Chromium on Linux". */
function deviceWords(userAgent: string | null): string {
  const { browser, os } = Bowser.parse(userAgent || "unknown");
  return [browser.name || "a browser", os.name].filter(Boolean).join(" on ");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const { auth, db } = peopleHere(context);
  const here = await auth.api.getSession({ headers: request.headers });
  const { userId, name, desks, deskId, role } = personHere(context);
  const keys = await db
    .select({ id: passkey.id, name: passkey.name, createdAt: passkey.createdAt })
    .from(passkey)
    .where(eq(passkey.userId, userId));
  const sessions = await sessionsOf(db, userId);
  return {
    ...{ name, desks, deskId, role },
    sessions: sessions.map(({ id, since, until, userAgent }) => ({
      ...{ id, device: deviceWords(userAgent), isHere: id === here?.session.id },
      ...{ since: since.toISOString().slice(0, 10), until: until.toISOString().slice(0, 10) },
    })),
    keys: keys.map(({ id, name: device, createdAt }) => ({
      id,
      name: device ?? "a device",
      since: createdAt?.toISOString().slice(0, 10) ?? null,
    })),
  };
}

/** What came of it: done, or what is wrong with the passphrase there is, or with the new one. */
interface Answer {
  readonly done?: string;
  readonly problem?: string;
  readonly nextProblem?: string;
}

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
  if (intent === "endSession") {
    await endSession(db, userId, String(form.get("session")));
    return data<Answer>({ done: "That device is signed out." });
  }
  if (intent === "passphrase") {
    const [current, next] = [String(form.get("current") ?? ""), String(form.get("next") ?? "")];
    const problem = passphraseProblem(next, name);
    if (problem) return data<Answer>({ nextProblem: problem }, { status: 400 });
    await countTry(db, request, signInAddress(name));
    const answer = await auth.api.changePassword({
      body: { currentPassword: current, newPassword: next, revokeOtherSessions: true },
      headers: request.headers,
      asResponse: true,
    });
    if (!answer.ok) return refuse("The passphrase you have now is another one.");
    await voidResets(db, userId);
    return data<Answer>(
      { done: "The passphrase is changed; everywhere else you are signed out." },
      { headers: answer.headers },
    );
  }
  return refuse("There is nothing like this to do.");
}

interface OwnProps {
  readonly what: string;
  readonly line: string;
  readonly act: {
    readonly intent: string;
    readonly field: string;
    readonly id: string;
    readonly word: string;
  } | null;
}

/** Something of one's own in a row, with the button that ends it. */
function Own({ what, line, act }: OwnProps) {
  return (
    <li>
      <Form method="post" className="flex flex-wrap items-baseline gap-3">
        <span>
          {what} <span className="text-sm text-quiet">{line}</span>
        </span>
        {act ? (
          <>
            <input type="hidden" name={act.field} value={act.id} />
            <button name="intent" value={act.intent} className="button button-plain">
              {act.word}
            </button>
          </>
        ) : null}
      </Form>
    </li>
  );
}

/** Who one is at the desk: passphrase, passkeys, desks. */
export default function Account({ loaderData, actionData }: Route.ComponentProps) {
  const { name, role, desks, deskId, keys, sessions } = loaderData;
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
          <h2>Signed in</h2>
          <ul className="grid gap-1">
            {sessions.map(({ id, device, isHere, since, until }) => (
              <Own
                key={id}
                what={device}
                line={`${isHere ? "this one, " : ""}since ${dayText(since)}, until ${dayText(until)} unless used`}
                act={isHere ? null : { intent: "endSession", field: "session", id, word: "Sign out there" }}
              />
            ))}
          </ul>
        </section>
        <section className="grid gap-3">
          <h2>Passkeys</h2>
          {keys.length ? (
            <ul className="grid gap-1">
              {keys.map((key) => (
                <Own
                  key={key.id}
                  what={key.name}
                  line={key.since ? `since ${dayText(key.since)}` : ""}
                  act={{ intent: "dropKey", field: "key", id: key.id, word: "Drop" }}
                />
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
              problem={actionData?.nextProblem}
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
