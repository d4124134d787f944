import { useEffect, useState } from "react";
import { data, Form } from "react-router";
import { useLookAgain } from "#app/ui/network/useLookAgain";
import { z } from "zod";
import { listPhones, newPhone, takeBackPhone } from "#db/people/phones";
import { listTests } from "#db/tests";
import { Empty, Page } from "#ui/page";
import { peopleHere, personHere } from "./here.server";
import { ScanCode } from "#ui/scanCode";
import type { Route } from "./+types/phones";

/** Tests that are offered, the newest first. */
const MOST_OFFERED = 60;

export async function loader({ context }: Route.LoaderArgs) {
  const { desk, sharing } = peopleHere(context);
  const [phones, tests] = await Promise.all([listPhones(desk), listTests(desk, { limit: MOST_OFFERED })]);
  const named = tests.map(({ id, bikeName, test }) => ({ id, name: `${bikeName}, ${test.title}` }));
  return {
    host: sharing.host,
    trustUrl: process.env["BAROMETRON_TRUST_URL"] || null,
    tests: named,
    phones: phones.map(({ pairedAt, seenAt, codeUntil, tests: its, ...rest }) => ({
      ...rest,
      state: pairedAt
        ? ("paired" as const)
        : codeUntil > new Date()
          ? ("waiting" as const)
          : ("late" as const),
      seenS: seenAt ? Math.max(0, Math.round((Date.now() - seenAt.getTime()) / 1000)) : null,
      tests: its.map((id) => named.find((each) => each.id === id)?.name ?? "a test"),
    })),
  };
}

const asked = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("pair"),
    name: z.string().trim().min(1, "Name the phone, for example: Maren's phone.").max(40),
    tests: z.array(z.uuid()).max(MOST_OFFERED),
  }),
  z.object({ intent: z.literal("takeBack"), id: z.uuid() }),
]);

interface Answer {
  readonly problem?: string;
  readonly code?: { readonly id: string; readonly address: string };
}

export async function action({ request, context }: Route.ActionArgs) {
  const { desk, sharing } = peopleHere(context);
  const { deskId } = personHere(context);
  const form = await request.formData();
  const parsed = asked.safeParse({ ...Object.fromEntries(form), tests: form.getAll("tests") });
  if (!parsed.success) return data<Answer>({ problem: parsed.error.issues[0]!.message }, { status: 400 });
  if (parsed.data.intent === "takeBack") {
    await takeBackPhone(desk, parsed.data.id);
    return data<Answer>({});
  }
  const { name, tests } = parsed.data;
  if (tests.length === 0)
    return data<Answer>({ problem: "Choose the rides this phone may add to." }, { status: 400 });
  const { id, code } = await newPhone(desk, { deskId, name, tests });
  return data<Answer>({ code: { id, address: `${sharing.publicUrl}/pair/${code}` } });
}

/** How long ago, in words. */
function ago(seconds: number): string {
  if (seconds < 90) return "just now";
  if (seconds < 5400) return `${Math.round(seconds / 60)} min ago`;
  if (seconds < 129_600) return `${Math.round(seconds / 3600)} h ago`;
  return `${Math.round(seconds / 86_400)} days ago`;
}

/** How often the list looks whether a phone has come, ms. */
const LOOK_MS = 4000;

type Phone = Route.ComponentProps["loaderData"]["phones"][number];

const stateText = ({ state, seenS, waiting }: Phone) =>
  state === "waiting"
    ? "its code waits to be scanned"
    : state === "late"
      ? "its code was not scanned in time"
      : `seen ${seenS === null ? "never" : ago(seenS)}${waiting ? `, ${waiting} ${waiting === 1 ? "entry waits" : "entries wait"} on it` : ""}`;

/** Phones in the field: pairing one, and what each may add to. */
export default function Phones({
  loaderData: { phones, tests, host, trustUrl },
  actionData,
}: Route.ComponentProps) {
  // The list is looked at again and again; what was answered last stays.
  const [answer, setAnswer] = useState<Answer>(actionData ?? {});
  if (actionData && actionData !== answer) setAnswer(actionData);
  const lookAgain = useLookAgain();
  useEffect(() => {
    const timer = setInterval(lookAgain, LOOK_MS);
    return () => clearInterval(timer);
  }, [lookAgain]);
  const shown = answer.code && phones.find(({ id }) => id === answer.code!.id);
  return (
    <Page
      title="Phones"
      line="A phone in the field adds to the rides it is paired for, with and without signal."
    >
      <div className="grid max-w-3xl gap-8 p-4 md:p-6">
        {answer.code && shown?.state === "waiting" ? (
          <section className="sheet grid gap-3 p-4" aria-live="polite">
            <h2>Scan this with “{shown.name}”</h2>
            <p className="text-sm text-quiet">
              Within ten minutes.{" "}
              {trustUrl ? (
                <>
                  A phone that does not know {host} yet first opens <b>{trustUrl}</b>, which helps it trust
                  this desk.
                </>
              ) : null}
            </p>
            <ScanCode address={answer.code.address} label={`Code that pairs ${shown.name}`} />
            <input
              readOnly
              aria-label="The code as an address"
              value={answer.code.address}
              className="input text-sm"
            />
          </section>
        ) : null}
        {shown?.state === "paired" ? <p role="status">{shown.name} is paired.</p> : null}
        {phones.length ? (
          <ul className="grid gap-3">
            {phones.map((phone) => (
              <li key={phone.id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
                <b>{phone.name}</b>
                <span className="text-sm text-quiet">{stateText(phone)}</span>
                <span className="text-sm text-quiet">{phone.tests.join("; ")}</span>
                <Form method="post">
                  <input type="hidden" name="id" value={phone.id} />
                  <button
                    name="intent"
                    value="takeBack"
                    className="button button-plain"
                    aria-label={`Take ${phone.name} back`}
                  >
                    Take back
                  </button>
                </Form>
              </li>
            ))}
          </ul>
        ) : (
          <p className="text-quiet">No phone is paired.</p>
        )}
        <section className="grid gap-3">
          <h2>Pair a phone</h2>
          {tests.length === 0 ? (
            <Empty step={null}>A phone is paired for rides: begin one first.</Empty>
          ) : (
            <Form method="post" className="grid gap-3">
              <label className="text-sm font-medium">
                Name of the phone
                <input name="name" className="input mt-1" maxLength={40} autoComplete="off" />
              </label>
              <fieldset>
                <legend className="mb-1 text-sm font-medium">Rides it may add to</legend>
                <div
                  className="grid max-h-64 gap-1 overflow-y-auto"
                  tabIndex={0}
                  role="group"
                  aria-label="Rides"
                >
                  {tests.map(({ id, name }, i) => (
                    <label key={id} className="flex min-h-8 items-center gap-2">
                      <input
                        type="checkbox"
                        name="tests"
                        value={id}
                        defaultChecked={i === 0}
                        className="size-5 accent-spruce"
                      />
                      {name}
                    </label>
                  ))}
                </div>
              </fieldset>
              {answer.problem ? (
                <p role="alert" className="text-sm text-rust">
                  {answer.problem}
                </p>
              ) : null}
              <button name="intent" value="pair" className="button button-main justify-self-start">
                Show its code
              </button>
            </Form>
          )}
        </section>
      </div>
    </Page>
  );
}
