import { useRef } from "react";
import { data, Form, href, Link, redirect, useFetcher } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { z } from "zod";
import { dbContext } from "#app/context";
import { build } from "#app/services/build.server";
import { allReferences } from "#app/services/comparison/references.server";
import { staleOf } from "#app/ui/forms/stale";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import { systemOf } from "#app/ui/systemCookie";
import { dayText } from "#core/base";
import { newestReferences } from "#core/bike";
import { remarksOf, type Remark, type SheetOptions } from "#core/telling";
import { versionMade } from "#db/entities";
import { listEditions, publishSheet, saveSheet, withdrawEdition, type SheetLine } from "#db/sheets";
import { listTests } from "#db/tests";
import { analysisOf } from "#app/services/analysis.server";
import type { Database } from "#db/client";
import { findTest } from "#db/tests";
import { useAnnounced } from "#ui/announce";
import { Acts } from "#ui/acts";
import { LiveFields } from "#ui/forms/lines";
import { useMeeting } from "#ui/forms/useMeeting";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { SheetView } from "#ui/sheet/sheetView";
import { useSystem } from "#ui/system";
import "../ui/sheet/sheet.css";
import { ComposerFields } from "./composerFields";
import { Files } from "./files";
import { optionTexts, readOptions } from "./options";
import { pageAt, sheetAt } from "./sheetAt.server";
import type { Route } from "./+types/composer";

/** Pause after a key before what is typed is kept, ms. */
const PAUSE_MS = 600;
/** Tests that a comparison offers to set against each other, the newest first. */
const MOST_OFFERED = 200;

/** The remarks of a test's log, to be sorted. */
async function remarksFor(db: Database, { testId }: SheetLine): Promise<readonly Remark[]> {
  const line = testId === null ? null : await findTest(db, testId);
  if (!line) return [];
  const { result } = await analysisOf(db, line);
  return result?.ok ? remarksOf(result.value.course) : [];
}

/** Tests that can be set against each other. */
const testsFor = async (db: Database, { kind }: SheetOptions) =>
  kind === "comparison"
    ? (await listTests(db, { limit: MOST_OFFERED })).map(({ id, bikeName, test }) => ({
        id,
        name: `${bikeName}, ${test.title}`,
      }))
    : [];

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const { line, gathered } = await pageAt(db, request, params.sheetId, systemOf(request));
  const [remarks, editions, tests, references] = await Promise.all([
    remarksFor(db, line),
    listEditions(db, line.id),
    testsFor(db, line.options),
    allReferences(db),
  ]);
  const { document, drawings, inputs, bundle } = gathered;
  return {
    line,
    ...{ document, drawings, remarks, tests },
    hasBundle: bundle !== null,
    names: newestReferences(references).map(({ name }) => name),
    /** Of the next edition: however often it is pressed, one is made. */
    nextEditionId: uuidv7(),
    editions: editions.map((each) => ({ ...each, asNow: each.inputs === inputs })),
  };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const form = await request.formData();
  const intent = String(form.get("intent") ?? "");
  if (intent === "publish") {
    const { line, gathered } = await pageAt(db, request, params.sheetId, systemOf(request));
    const id = z.uuid().safeParse(form.get("editionId"));
    const { document, drawings, reference, bundle, inputs } = gathered;
    const body = { document, drawings, reference, bundle, paper: line.options.paper, method: build };
    const number = await publishSheet(db, id.success ? id.data : uuidv7(), line.id, body, inputs);
    return redirect(href("/sheet/:sheetId/editions/:number", { sheetId: line.id, number: String(number) }));
  }
  const line = await sheetAt(db, params.sheetId);
  if (intent === "withdraw" || intent === "restore") {
    const number = Number(form.get("number"));
    if (Number.isInteger(number)) await withdrawEdition(db, line.id, number, intent === "withdraw");
    return { problems: {} };
  }
  const read = readOptions(form, line.options);
  if (!read.success)
    return data(
      {
        problems: Object.fromEntries(
          read.error.issues.map(({ path, message }) => [String(path[0]), message]),
        ),
      },
      { status: 400 },
    );
  const { saved, stale } = await saveOrStale(
    () => saveSheet(db, line.id, line, read.data, seenVersion(form)),
    async () => optionTexts((await sheetAt(db, line.id)).options),
  );
  return stale
    ? staleReply({ problems: {} }, stale)
    : { problems: {}, version: await versionMade(db, saved) };
}

/** What was published of a sheet, each with whether the desk still says the same. */
function Editions({ loaderData }: Pick<Route.ComponentProps, "loaderData">) {
  const { line, editions } = loaderData;
  if (editions.length === 0) return null;
  return (
    <section>
      <h2 className="mb-2">Published</h2>
      <ul className="grid gap-2">
        {editions.map(({ id, number, at, withdrawnAt, asNow }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3 border-b border-rule pb-2">
            <Link to={href("/sheet/:sheetId/editions/:number", { sheetId: line.id, number: String(number) })}>
              Edition {number}, {dayText(at)}
            </Link>
            <span className="text-sm text-quiet">
              {withdrawnAt ? "taken back" : asNow ? "as the desk is now" : "the desk has changed since"}
            </span>
            <Form method="post" className="ml-auto">
              <input type="hidden" name="number" value={number} />
              <button
                name="intent"
                value={withdrawnAt ? "restore" : "withdraw"}
                className="button button-plain"
                aria-label={`${withdrawnAt ? "Let stand again" : "Take back"} edition ${number}`}
              >
                {withdrawnAt ? "Let it stand" : "Take back"}
              </button>
            </Form>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A sheet being composed: what stands on it left, the page as it will be printed right. */
export default function Composer({ loaderData }: Route.ComponentProps) {
  const { line, document, drawings, hasBundle, nextEditionId } = loaderData;
  const system = useSystem();
  const form = useRef<HTMLFormElement>(null);
  const fetcher = useFetcher<typeof action>();
  const { soon, waiting, status, fields } = useMeeting(form, fetcher, line.version, staleOf(fetcher.data));
  useAnnounced(status === "saved as typed" ? "Saved." : null);
  return (
    <Page
      title={`Sheet: ${line.options.title}`}
      line="Draft. Nothing of it is public until it is published; a published sheet keeps its figures."
      what="sheet"
      acts={
        <Acts
          kind="sheet"
          id={line.id}
          name={line.options.title}
          list={href("/sheet")}
          archived={line.archived}
        />
      }
      next={
        <div className="flex flex-wrap items-center gap-3 print:hidden">
          <span className="text-sm text-quiet">{status}</span>
          <Form method="post">
            <input type="hidden" name="editionId" value={nextEditionId} />
            <button name="intent" value="publish" className="button button-main" disabled={waiting}>
              Publish
            </button>
          </Form>
        </div>
      }
    >
      <div className="flex flex-wrap items-start gap-8 p-4 md:p-6 print:block print:p-0">
        <div className="grid min-w-0 flex-[1_1_24rem] content-start gap-6 print:hidden">
          <LiveFields
            values={optionTexts(line.options)}
            problems={(fetcher.data?.problems as Readonly<Record<string, string>> | undefined) ?? {}}
          >
            <Form
              method="post"
              ref={form}
              onChange={() => soon(PAUSE_MS)}
              className="grid content-start gap-5"
            >
              {fields}
              <ComposerFields {...loaderData} />
              <noscript>
                <button className="button">Save</button>
              </noscript>
            </Form>
          </LiveFields>
          <p>
            <Link to={href("/sheet/:sheetId/photographs", { sheetId: line.id })}>Photographs</Link>
          </p>
          <Files
            path={(format) => href("/sheet/:sheetId/:format", { sheetId: line.id, format })}
            hasBundle={hasBundle}
          />
          <Editions loaderData={loaderData} />
        </div>
        <div className="sheet min-w-0 flex-[2_1_30rem] bg-white p-5 md:p-8 print:border-0 print:p-0">
          <SheetView document={document} drawings={drawings} system={system} />
        </div>
      </div>
      <div className="px-4 pb-6 md:px-6">
        <History kind="sheet" id={line.id} />
      </div>
    </Page>
  );
}
