import { href, Link } from "react-router";
import { dbContext } from "#app/context";
import { footOf } from "#app/services/sheets/foot";
import { sheetPage } from "#app/services/sheets/sheetPage.server";
import { systemOf } from "#app/ui/systemCookie";
import { dayText } from "#core/base";
import { changesSince } from "#core/telling";
import { Page } from "#ui/page";
import { PrintButton } from "#ui/printButton";
import { SheetView } from "#ui/sheet/sheetView";
import { useSpoken, useSystem } from "#ui/system";
import "../ui/sheet/sheet.css";
import { Files } from "./files";
import { editionAt } from "./sheetAt.server";
import type { Route } from "./+types/edition";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const { line, edition } = await editionAt(db, params);
  const now = await sheetPage(db, request, line, systemOf(request));
  const { document, drawings, reference } = edition.body;
  const same = now?.inputs === edition.inputs;
  return {
    sheetId: line.id,
    ...{ document, drawings, reference },
    number: edition.number,
    at: edition.at,
    withdrawnAt: edition.withdrawnAt,
    hasBundle: edition.body.bundle !== null,
    inputs: edition.inputs,
    changes: now === null ? null : same ? [] : changesSince(document, now.document),
  };
}

/** What has changed since a page was published. */
function Changes({ changes }: { readonly changes: readonly string[] | null }) {
  const say = useSpoken();
  if (changes === null)
    return <p>What this page was of is no longer on the desk; the page stands as it was.</p>;
  if (changes.length === 0) return <p>Nothing has changed since: the desk still says what this page says.</p>;
  return (
    <ul className="list-disc pl-5">
      {changes.map((sentence) => (
        <li key={sentence}>{say(sentence)}</li>
      ))}
    </ul>
  );
}

/** A page as it was published: nothing on it moves any more. */
export default function EditionPage({ loaderData }: Route.ComponentProps) {
  const system = useSystem();
  const { sheetId, document, drawings, number, at, withdrawnAt, changes, reference, hasBundle, inputs } =
    loaderData;
  return (
    <Page
      title={document.title}
      line={`Edition ${number}, published ${dayText(at)}, ${reference ? `under ${reference}` : "as ridden"}. It keeps its figures.`}
      next={
        <div className="flex flex-wrap gap-3 print:hidden">
          <Link to={href("/sheet/:sheetId", { sheetId })} className="button">
            The sheet as it is now
          </Link>
          <PrintButton />
        </div>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-6 p-4 md:p-6 xl:grid-cols-[22rem_minmax(0,1fr)]">
        <div className="grid content-start gap-5 print:hidden">
          {withdrawnAt ? (
            <p role="note" className="border-l-4 border-rust bg-sheet px-4 py-3">
              Taken back on {dayText(withdrawnAt)}: its files are no longer given out.
            </p>
          ) : null}
          <section>
            <h2 className="mb-1">Since then</h2>
            <Changes changes={changes} />
          </section>
          {withdrawnAt ? null : (
            <Files
              path={(format) =>
                href("/sheet/:sheetId/editions/:number/:format", { sheetId, number: String(number), format })
              }
              hasBundle={hasBundle}
            />
          )}
          <p className="text-sm text-quiet">
            Written from inputs of the hash <span className="font-mono text-xs break-all">{inputs}</span>.
            {hasBundle ? " The bundle holds them: ./barometron calc gives the same figures." : ""}
          </p>
        </div>
        <div className="sheet min-w-0 bg-white p-5 md:p-8 print:border-0 print:p-0">
          <SheetView
            document={document}
            drawings={drawings}
            system={system}
            foot={footOf({ number, at, reference })}
          />
        </div>
      </div>
    </Page>
  );
}
