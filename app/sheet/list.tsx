import { data, Form, href, Link, redirect } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found } from "#app/ui/require.server";
import { dayText } from "#core/base";
import { SHEET_KINDS, type SheetKind } from "#core/telling";
import { findBench, listAllBenches } from "#db/bikes";
import type { Database } from "#db/client";
import { listEditions, listSheets, saveSheet, type SheetOf } from "#db/sheets";
import { findTest, listTests } from "#db/tests";
import type { Unreadable } from "#db/unreadable";
import { Empty, Page } from "#ui/page";
import { UnreadableRows } from "#ui/unreadableRows";
import { firstOptions } from "./options";
import type { Route } from "./+types/list";

/** Tests that are offered, the newest first. */
const MOST_OFFERED = 200;

export async function loader({ context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const unreadable: Unreadable[] = [];
  const [sheets, editions, tests, benches] = await Promise.all([
    listSheets(db, { unreadable }),
    listEditions(db),
    listTests(db, { limit: MOST_OFFERED }),
    listAllBenches(db),
  ]);
  return {
    unreadable,
    tests: tests.map(({ id, bikeName, test }) => ({ id, name: `${bikeName}, ${test.title}` })),
    benches,
    sheets: sheets.map(({ id, options }) => {
      const own = editions.filter(({ sheetId }) => sheetId === id);
      const standing = own.find(({ withdrawnAt }) => withdrawnAt === null);
      return {
        ...{ id, title: options.title, kind: options.kind },
        published: standing ? { number: standing.number, at: standing.at } : null,
        withdrawn: own.length > 0 && !standing,
      };
    }),
  };
}

const askSchema = z.object({ kind: z.enum(SHEET_KINDS), of: z.uuid().optional().catch(undefined) });

/** What a new sheet is of, and what it is called until somebody says otherwise. */
async function begun(
  db: Database,
  kind: SheetKind,
  of: string | undefined,
): Promise<SheetOf & { readonly title: string }> {
  if (kind === "comparison") return { testId: null, benchId: null, title: "The desk, compared" };
  if (kind === "customer") {
    const bench = found(of ? await findBench(db, of) : null, "Choose the bench test that the sheet is of.");
    return { testId: null, benchId: of!, title: `Capacity of ${bench.pack.name}, ${bench.bike.name}` };
  }
  const line = found(of ? await findTest(db, of) : null, "Choose the test that the sheet is of.");
  return { testId: line.id, benchId: null, title: `${line.bikeName}, ${line.test.title}` };
}

/** Makes a sheet, or opens the one there is of this test or bench. */
export async function action({ request, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const asked = askSchema.safeParse(Object.fromEntries(await request.formData()));
  if (!asked.success) throw data("A sheet is of a test, a comparison or a bench test.", { status: 400 });
  const { kind, of } = asked.data;
  const { title, ...subject } = await begun(db, kind, of);
  const before =
    kind === "comparison"
      ? undefined
      : (await listSheets(db)).find(
          (each) => each.testId === subject.testId && each.benchId === subject.benchId,
        );
  if (before) return redirect(href("/sheet/:sheetId", { sheetId: before.id }));
  const id = madeId(request);
  await saveSheet(db, id, subject, firstOptions(kind, title, kind === "comparison" ? "House" : ""));
  return redirect(href("/sheet/:sheetId", { sheetId: id }));
}

const KINDS: Readonly<Record<SheetKind, string>> = {
  test: "a test",
  comparison: "a comparison",
  customer: "a pack, for its owner",
};

interface BeginProps {
  readonly kind: SheetKind;
  readonly label: string;
  readonly choices?: readonly { readonly id: string; readonly name: string }[];
}

/** Begins a sheet of one kind. */
function Begin({ kind, label, choices }: BeginProps) {
  if (choices?.length === 0) return null;
  return (
    <Form method="post" className="flex flex-wrap items-end gap-3">
      <input type="hidden" name="kind" value={kind} />
      {choices ? (
        <label className="grid min-w-0 flex-1 gap-0.5 text-sm">
          <span className="text-quiet">{label}</span>
          <select name="of" className="input">
            {choices.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      <button className="button" aria-label={`New sheet: ${label}`}>
        {choices ? "New sheet" : label}
      </button>
    </Form>
  );
}

/** What leaves the desk: sheets that are published, and those that could be. */
export default function Sheets({ loaderData: { sheets, tests, benches, unreadable } }: Route.ComponentProps) {
  return (
    <Page
      title="Sheet"
      line="What leaves the desk: a page of a test, of a comparison, of a pack for its owner; on paper, as a file, as a picture for a film."
      what="sheet"
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6 xl:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="grid content-start gap-4">
          <UnreadableRows rows={unreadable} />
          {sheets.length ? (
            <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Sheets">
              <table className="table w-full min-w-md">
                <caption className="sr-only">Sheets</caption>
                <thead>
                  <tr>
                    <th scope="col">Title</th>
                    <th scope="col">Of</th>
                    <th scope="col">Published</th>
                  </tr>
                </thead>
                <tbody>
                  {sheets.map(({ id, title, kind, published, withdrawn }) => (
                    <tr key={id}>
                      <th scope="row">
                        <Link to={href("/sheet/:sheetId", { sheetId: id })}>{title}</Link>
                      </th>
                      <td>{KINDS[kind]}</td>
                      <td>
                        {published ? (
                          <Link
                            to={href("/sheet/:sheetId/editions/:number", {
                              sheetId: id,
                              number: String(published.number),
                            })}
                          >
                            edition {published.number}, {dayText(published.at)}
                          </Link>
                        ) : withdrawn ? (
                          "taken back"
                        ) : (
                          "draft"
                        )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          ) : (
            <Empty
              step={
                <Link to={href("/strip")} className="button">
                  Tests
                </Link>
              }
            >
              No sheet yet. Choose a test, a bench test or the whole desk: its page is written from the log,
              and yours to cut and to add to.
            </Empty>
          )}
        </div>
        <section className="grid content-start gap-4">
          <h2>New sheet</h2>
          <Begin kind="test" label="Of a test" choices={tests} />
          <Begin kind="customer" label="Of a bench test, for its owner" choices={benches} />
          <Begin kind="comparison" label="Of the desk, compared" />
        </section>
      </div>
    </Page>
  );
}
