import { data, Form, href } from "react-router";
import { dbContext } from "#app/context";
import { mayDo, principalContext } from "#app/services/people/principal";
import { countOf, dayText } from "#core/base";
import { nounOf } from "#db/kinds";
import { emptyTrash, listArchived, listTrash, TRASH_DAYS } from "#db/trash";
import { Act } from "#ui/acts";
import { Page } from "#ui/page";
import type { Route } from "./+types/trash";

const DAY_MS = 86_400_000;
const dayOf = (ms: number) => new Date(ms).toISOString().slice(0, 10);

export async function loader({ context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const [trashed, archived] = await Promise.all([listTrash(db), listArchived(db)]);
  return {
    mayEmpty: mayDo("owner", context.get(principalContext)),
    trashed: trashed.map(({ kind, id, name, deletedAt, with: more }) => ({
      ...{ kind, id, name, noun: nounOf(kind), more },
      deletedOn: dayOf(deletedAt.getTime()),
      goesOn: dayOf(deletedAt.getTime() + TRASH_DAYS * DAY_MS),
    })),
    archived: archived.map((each) => ({ ...each, noun: nounOf(each.kind) })),
  };
}

/** Empties the trash at once. */
export async function action({ context }: Route.ActionArgs) {
  if (!mayDo("owner", context.get(principalContext)))
    throw data("Only an owner of the desk empties its trash.", { status: 403 });
  const gone = await emptyTrash(context.get(dbContext), new Date());
  return { sentence: `${countOf(gone, "record")} removed for good.` };
}

type Data = Route.ComponentProps["loaderData"];

function TrashTable({ rows }: { readonly rows: Data["trashed"] }) {
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Trash">
      <table className="table w-full min-w-lg">
        <caption className="sr-only">What was deleted, the last first</caption>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Deleted</th>
            <th scope="col">Removed for good</th>
            <th scope="col" className="number">
              <span className="sr-only">Bring back</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ kind, id, name, noun, more, deletedOn, goesOn }) => (
            <tr key={id}>
              <th scope="row">
                {name}
                <div className="text-sm text-quiet">{more ? `${noun}, with ${more}` : noun}</div>
              </th>
              <td className="whitespace-nowrap">{dayText(deletedOn)}</td>
              <td className="whitespace-nowrap">{dayText(goesOn)}</td>
              <td className="number text-sm">
                <Act kind={kind} id={id} intent="restore" list={href("/settings/trash")} name={name} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What was deleted or archived, with the way back. */
export default function Trash({
  loaderData: { trashed, archived, mayEmpty },
  actionData,
}: Route.ComponentProps) {
  return (
    <Page
      title="Trash and archive"
      line={`Deleted records stay ${TRASH_DAYS} days. Archived records stay for as long as the desk does.`}
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-8 p-4 md:p-6">
        {actionData ? <p role="status">{actionData.sentence}</p> : null}
        <section>
          <h2 className="mb-2">Trash</h2>
          {trashed.length ? <TrashTable rows={trashed} /> : <p className="text-quiet">The trash is empty.</p>}
          {mayEmpty && trashed.length ? (
            <Form method="post" className="mt-3">
              <button className="button">Remove all of it for good</button>
            </Form>
          ) : null}
        </section>
        <section>
          <h2 className="mb-2">Archive</h2>
          {archived.length ? (
            <ul className="grid gap-2">
              {archived.map(({ kind, id, name, noun }) => (
                <li key={id} className="flex flex-wrap items-center gap-x-3">
                  <span>
                    {name} <span className="text-sm text-quiet">{noun}</span>
                  </span>
                  <Act kind={kind} id={id} intent="restore" list={href("/settings/trash")} name={name} />
                </li>
              ))}
            </ul>
          ) : (
            <p className="text-quiet">Nothing is archived.</p>
          )}
        </section>
      </div>
    </Page>
  );
}
