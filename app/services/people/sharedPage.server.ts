import type { Decimal, System } from "#core/base";
import { PAPERS, sheetOptionsSchema } from "#core/telling";
import type { Database } from "#db/client";
import type { LinkKind } from "#db/people/links";
import { findEditionById, findSheet, type SheetLine } from "#db/sheets";
import { findTest } from "#db/tests";
import { pageHtml } from "../sheets/files.server";
import { footOf } from "../sheets/foot";
import { sheetPage } from "../sheets/sheetPage.server";

interface Reader {
  readonly system: System;
  readonly decimal: Decimal;
}

/** Not indexed, not kept, and whoever it links to is not told whence. */
const HEADERS = {
  "content-type": "text/html; charset=utf-8",
  "cache-control": "private, no-store",
  "x-robots-tag": "noindex, nofollow",
  "referrer-policy": "no-referrer",
};

/** What a reader sees while figures of the page are calculated: it asks again by itself, without a script. */
export const waitingPage = (): Response =>
  new Response(
    `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<meta name="robots" content="noindex, nofollow"><meta http-equiv="refresh" content="2">
<title>Calculating - Barometron</title>
<style>body{font:1.05rem/1.5 sans-serif;max-width:34rem;margin:2rem auto;padding:0 1rem;background:#f6f3ea;color:#1d2a2a}</style>
<h1>Calculating</h1>
<p>Figures of this page are being calculated. It updates by itself.</p>
</html>
`,
    { status: 202, headers: { ...HEADERS, "retry-after": "2" } },
  );

/** The sheet that a test has before anybody chose what stands on it. */
async function plainSheet(db: Database, testId: string): Promise<SheetLine | null> {
  const line = await findTest(db, testId);
  if (!line || line.deletedAt) return null;
  const title = `${line.bikeName}, ${line.test.title}`;
  const options = sheetOptionsSchema.parse({ kind: "test", title: title.slice(0, 160), under: "" });
  return { id: testId, testId, benchId: null, options, archived: false, deleted: false, version: 0 };
}

/** What a link shows, as it is now or as it was published; null when it is gone or was taken back. */
export async function sharedPage(
  db: Database,
  { kind, targetId }: { readonly kind: LinkKind; readonly targetId: string },
  reader: Reader,
): Promise<Response | null> {
  if (kind === "edition") {
    const edition = await findEditionById(db, targetId);
    if (!edition || edition.withdrawnAt) return null;
    const { document, drawings, paper, reference } = edition.body;
    const page = {
      ...{ document, drawings, bundle: null, ...reader },
      paper: PAPERS.find((each) => each === paper) ?? "A4",
      foot: footOf({ ...edition, reference }),
    };
    return new Response(await pageHtml(db, page), { headers: HEADERS });
  }
  const line = await (kind === "test" ? plainSheet : findSheet)(db, targetId);
  // Asked for as its data would be: it waits for what is still being reckoned.
  const request = new Request("http://here/", { headers: { accept: "*/*" } });
  const gathered = line && (await sheetPage(db, request, line, reader.system));
  if (!line || line.deleted || !gathered) return null;
  const page = { ...gathered, bundle: null, ...reader, paper: line.options.paper, foot: footOf(null) };
  return new Response(await pageHtml(db, page), { headers: HEADERS });
}
