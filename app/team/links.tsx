import { data, Form, Link } from "react-router";
import { z } from "zod";
import { dayText } from "#core/base";
import { LINK_KINDS, listLinks, newLink, takeBackLink } from "#db/people/links";
import { listEditions, listSheets } from "#db/sheets";
import { findTest } from "#db/tests";
import { Empty, Page } from "#ui/page";
import { peopleHere, personHere } from "./here.server";
import { SecretLink } from "./secretLink";
import type { Route } from "./+types/links";

const DAYS = [7, 30, 90, 365] as const;

export async function loader({ request, context }: Route.LoaderArgs) {
  const { desk } = peopleHere(context);
  const [links, sheets, editions] = await Promise.all([
    listLinks(desk),
    listSheets(desk),
    listEditions(desk),
  ]);
  const wanted = new URL(request.url).searchParams.get("test");
  const linked = links.flatMap(({ kind, targetId }) => (kind === "test" ? [targetId] : []));
  const tests = await Promise.all(
    [...new Set(z.uuid().safeParse(wanted).success ? [wanted!, ...linked] : linked)].map((id) =>
      findTest(desk, id),
    ),
  );
  const titleOf = new Map(sheets.map(({ id, options }) => [id, options.title]));
  const pages = [
    ...tests.flatMap((line) =>
      line ? [{ value: `test/${line.id}`, label: `${line.bikeName}, ${line.test.title}` }] : [],
    ),
    ...sheets.map(({ id, options }) => ({ value: `sheet/${id}`, label: `${options.title}, as it is now` })),
    ...editions
      .filter(({ withdrawnAt }) => withdrawnAt === null)
      .map(({ id, sheetId, number }) => ({
        value: `edition/${id}`,
        label: `${titleOf.get(sheetId) ?? "a sheet"}, edition ${number}`,
      })),
  ];
  const day = (at: Date) => at.toISOString().slice(0, 10);
  return {
    pages,
    links: links.map(({ kind, targetId, madeAt, expiresAt, lastReadAt, ...rest }) => ({
      ...rest,
      page: pages.find(({ value }) => value === `${kind}/${targetId}`)?.label ?? "a page that is gone",
      ...{ madeAt: day(madeAt), expiresAt: day(expiresAt), lastReadAt: lastReadAt && day(lastReadAt) },
    })),
  };
}

const asked = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("make"),
    page: z
      .string()
      .regex(/^[a-z]+\/[0-9a-f-]{36}$/, "Choose the page.")
      .transform((page) => page.split("/") as [string, string])
      .pipe(z.tuple([z.enum(LINK_KINDS), z.uuid()])),
    days: z.coerce.number().int().min(1).max(365),
    note: z.string().trim().max(80),
  }),
  z.object({ intent: z.literal("takeBack"), id: z.uuid() }),
]);

interface Answer {
  readonly link?: string;
  readonly problem?: string;
}

export async function action({ request, context }: Route.ActionArgs) {
  const { desk, sharing } = peopleHere(context);
  const { deskId } = personHere(context);
  const parsed = asked.safeParse(Object.fromEntries(await request.formData()));
  if (!parsed.success) return data<Answer>({ problem: parsed.error.issues[0]!.message }, { status: 400 });
  if (parsed.data.intent === "takeBack") {
    await takeBackLink(desk, parsed.data.id);
    return data<Answer>({});
  }
  const { page, days, note } = parsed.data;
  const secret = await newLink(desk, { deskId, kind: page[0], targetId: page[1], days, note });
  return data<Answer>({ link: `${sharing.publicUrl}/shared/${secret}` });
}

/** Links by which anybody reads one page. */
export default function Links({ loaderData: { links, pages }, actionData }: Route.ComponentProps) {
  const answer: Answer = actionData ?? {};
  return (
    <Page
      title="Links"
      line="Whoever has a link reads one page and nothing else, until it expires or you take it back. Search engines are told to keep away."
    >
      <div className="grid max-w-3xl gap-8 p-4 md:p-6">
        {pages.length === 0 ? (
          <Empty
            step={
              <Link to="/sheet" className="button button-main">
                Make a sheet
              </Link>
            }
          >
            A link shows a sheet: of a pack, or of a comparison. A test is shared from its own page, under
            Export.
          </Empty>
        ) : (
          <Form method="post" className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_9rem]">
            <label className="text-sm font-medium sm:col-span-2">
              Page
              <select name="page" className="input mt-1">
                {pages.map(({ value, label }) => (
                  <option key={value} value={value}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
            <label className="text-sm font-medium">
              For whom
              <input name="note" className="input mt-1" maxLength={80} autoComplete="off" />
            </label>
            <label className="text-sm font-medium">
              For
              <select name="days" className="input mt-1" defaultValue={30}>
                {DAYS.map((days) => (
                  <option key={days} value={days}>
                    {days} days
                  </option>
                ))}
              </select>
            </label>
            {answer.problem ? (
              <p role="alert" className="text-sm text-rust sm:col-span-2">
                {answer.problem}
              </p>
            ) : null}
            <button name="intent" value="make" className="button button-main justify-self-start">
              Make a link
            </button>
          </Form>
        )}
        {answer.link ? <SecretLink link={answer.link} line="Shown only now: copy it." /> : null}
        {links.length ? (
          <ul className="grid gap-3">
            {links.map((link) => (
              <li key={link.id} className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
                <b>{link.page}</b>
                <span className="text-sm text-quiet">
                  {link.note ? `for ${link.note}, ` : ""}until {dayText(link.expiresAt)}, read{" "}
                  {link.reads === 0 ? "never" : `${link.reads} ${link.reads === 1 ? "time" : "times"}`}
                </span>
                <Form method="post">
                  <input type="hidden" name="id" value={link.id} />
                  <button
                    name="intent"
                    value="takeBack"
                    className="button button-plain"
                    aria-label={`Take back the link to ${link.page}`}
                  >
                    Take back
                  </button>
                </Form>
              </li>
            ))}
          </ul>
        ) : null}
      </div>
    </Page>
  );
}
