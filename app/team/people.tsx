import { data, Form } from "react-router";
import { z } from "zod";
import { FIRST_DESK } from "#db/schema";
import {
  invite,
  INVITED_HOURS,
  listInvitations,
  listMembers,
  makeDesk,
  ownsAllDesksOf,
  removeMember,
  ROLES,
  setRole,
  takeBackInvitation,
  type Role,
} from "#db/people/people";
import { dayText } from "#core/base";
import { Page } from "#ui/page";
import { peopleHere, personHere } from "./here.server";
import { SecretLink } from "./secretLink";
import type { Route } from "./+types/people";

export async function loader({ context }: Route.LoaderArgs) {
  const { db } = peopleHere(context);
  const { deskId, userId, desks } = personHere(context);
  const [members, invitations] = await Promise.all([listMembers(db, deskId), listInvitations(db, deskId)]);
  return {
    you: userId,
    isFirst: deskId === FIRST_DESK,
    desk: desks.find(({ id }) => id === deskId)?.name || "the first desk",
    members: members.map((each) => ({ ...each, since: each.since.toISOString().slice(0, 10) })),
    invitations: invitations.map((each) => ({
      ...each,
      expiresAt: each.expiresAt.toISOString().slice(0, 10),
    })),
  };
}

const role = z.enum(ROLES, { error: "Choose owner, editor or viewer." });
const asked = z.discriminatedUnion("intent", [
  z.object({ intent: z.literal("invite"), role, name: z.string().trim().max(60) }),
  z.object({ intent: z.literal("role"), userId: z.string().max(64), role }),
  z.object({ intent: z.literal("remove"), userId: z.string().max(64) }),
  z.object({ intent: z.literal("reset"), userId: z.string().max(64) }),
  z.object({ intent: z.literal("takeBack"), id: z.uuid() }),
  z.object({ intent: z.literal("desk"), name: z.string().trim().min(1, "Name the desk.").max(60) }),
]);

interface Answer {
  readonly link?: string;
  readonly done?: string;
  readonly problem?: string;
}

export async function action({ request, context }: Route.ActionArgs) {
  const { db, sharing } = peopleHere(context);
  const { deskId, userId } = personHere(context);
  const parsed = asked.safeParse(Object.fromEntries(await request.formData()));
  const refuse = (problem: string) => data<Answer>({ problem }, { status: 400 });
  if (!parsed.success) return refuse(parsed.error.issues[0]!.message);
  const ask = parsed.data;
  const linkOf = (secret: string) => data<Answer>({ link: `${sharing.publicUrl}/invited/${secret}` });
  const answered = (problem: string | null, done: string) =>
    problem ? refuse(problem) : data<Answer>({ done });
  const isMember = async (id: string) => (await listMembers(db, deskId)).some((each) => each.userId === id);
  switch (ask.intent) {
    case "invite":
      return linkOf(await invite(db, { deskId, role: ask.role, name: ask.name }));
    case "role":
      return answered(await setRole(db, deskId, ask.userId, ask.role), "The role is changed.");
    case "remove":
      return answered(
        await removeMember(db, deskId, ask.userId),
        "They are off the desk; what they wrote stays.",
      );
    case "reset":
      if (!(await isMember(ask.userId))) return refuse("They are not at this desk.");
      if (!(await ownsAllDesksOf(db, userId, ask.userId)))
        return refuse(
          "They belong to a desk that you do not own: an owner of all their desks sets a new passphrase, or ./barometron people reset at the machine.",
        );
      return linkOf(await invite(db, { deskId, role: "viewer", resetOf: ask.userId, hours: 2 }));
    case "takeBack":
      await takeBackInvitation(db, deskId, ask.id);
      return data<Answer>({ done: "The invitation is taken back." });
    case "desk":
      if (deskId !== FIRST_DESK) return refuse("Desks are made by an owner of the first one.");
      await makeDesk(db, ask.name, userId);
      return data<Answer>({ done: `${ask.name} is made: go there from the page of your name.` });
  }
}

function RoleField({ value, label }: { readonly value: Role; readonly label: string }) {
  return (
    <select name="role" aria-label={label} className="input w-32" defaultValue={value}>
      {ROLES.map((each) => (
        <option key={each}>{each}</option>
      ))}
    </select>
  );
}

type Data = Route.ComponentProps["loaderData"];

function Members({ members, you }: Pick<Data, "members" | "you">) {
  return (
    <ul className="grid gap-3">
      {members.map((each) => (
        <li key={each.userId} className="grid gap-x-6 gap-y-1 sm:grid-cols-[minmax(0,1fr)_auto]">
          <span>
            <b>{each.name}</b>
            {each.userId === you ? " (you)" : ""}{" "}
            <span className="text-sm text-quiet">since {dayText(each.since)}</span>
          </span>
          <Form method="post" className="flex flex-wrap items-center gap-2">
            <input type="hidden" name="userId" value={each.userId} />
            <RoleField value={each.role} label={`Role of ${each.name}`} />
            <button name="intent" value="role" className="button" aria-label={`Set the role of ${each.name}`}>
              Set
            </button>
            <button name="intent" value="reset" className="button button-plain">
              New passphrase
            </button>
            {each.userId === you ? null : (
              <button
                name="intent"
                value="remove"
                className="button button-plain"
                aria-label={`Take ${each.name} off`}
              >
                Take off
              </button>
            )}
          </Form>
        </li>
      ))}
    </ul>
  );
}

/** Who belongs to the desk, and what they may do. */
export default function People({ loaderData, actionData }: Route.ComponentProps) {
  const { members, invitations, you, desk, isFirst } = loaderData;
  const answer: Answer = actionData ?? {};
  return (
    <Page
      title="People"
      line={`At ${desk}. Owners see to people; editors ride, type and publish; viewers read.`}
    >
      <div className="grid max-w-3xl gap-8 p-4 md:p-6">
        {answer.done ? <p role="status">{answer.done}</p> : null}
        {answer.problem ? (
          <p role="alert" className="text-rust">
            {answer.problem}
          </p>
        ) : null}
        <Members members={members} you={you} />
        <section className="grid gap-3">
          <h2>Invite somebody</h2>
          <Form method="post" className="flex flex-wrap items-end gap-3">
            <label className="text-sm font-medium">
              Name
              <input name="name" className="input mt-1" maxLength={60} autoComplete="off" />
            </label>
            <RoleField value="editor" label="Role of whom is invited" />
            <button name="intent" value="invite" className="button button-main">
              Make a link
            </button>
          </Form>
          {answer.link ? (
            <SecretLink
              link={answer.link}
              line="Send it to that person only. It lets one person in, once, and is shown only now."
            />
          ) : (
            <p className="text-sm text-quiet">A link lets one person in, within {INVITED_HOURS} hours.</p>
          )}
          {invitations.length ? (
            <ul className="grid gap-1">
              {invitations.map((each) => (
                <li key={each.id}>
                  <Form method="post" className="flex items-baseline gap-3">
                    <input type="hidden" name="id" value={each.id} />
                    <span>
                      {each.name || "somebody"}, {each.role}
                      <span className="text-sm text-quiet"> until {dayText(each.expiresAt)}</span>
                    </span>
                    <button name="intent" value="takeBack" className="button button-plain">
                      Take back
                    </button>
                  </Form>
                </li>
              ))}
            </ul>
          ) : null}
        </section>
        {isFirst ? (
          <section className="grid gap-3">
            <h2>Another desk</h2>
            <p className="text-sm text-quiet">
              Bikes, rides and people of its own on this machine; nobody of one desk sees another.
            </p>
            <Form method="post" className="flex flex-wrap items-end gap-3">
              <label className="text-sm font-medium">
                Its name
                <input name="name" className="input mt-1" maxLength={60} required autoComplete="off" />
              </label>
              <button name="intent" value="desk" className="button">
                Make it
              </button>
            </Form>
          </section>
        ) : null}
      </div>
    </Page>
  );
}
