import { useState, type ReactNode } from "react";
import { href, useFetcher, useLocation } from "react-router";

/** What a record is, and where to go when it is no longer in its list. */
interface RecordProps {
  readonly kind: string;
  readonly id: string;
  readonly name: string;
  /** The page with its list. */
  readonly list: string;
  readonly archived?: boolean;
}

const WORDS = {
  archive: "Archive",
  restore: "Bring back",
  duplicate: "Duplicate",
  delete: "Delete",
} as const;

type Refusal = { readonly refused: string } | undefined;

/** A form that acts on a record; what was refused stands below it, and what was typed stays. */
function ActForm({
  of: { kind, id },
  to,
  children,
}: {
  readonly of: RecordProps;
  readonly to: string;
  readonly children: ReactNode;
}) {
  const fetcher = useFetcher<Refusal>();
  const refused = fetcher.state === "idle" ? fetcher.data?.refused : undefined;
  return (
    <fetcher.Form method="post" action={href("/act")} className="inline-flex flex-wrap items-center gap-2">
      <input type="hidden" name="kind" value={kind} />
      <input type="hidden" name="id" value={id} />
      <input type="hidden" name="to" value={to} />
      {children}
      {refused ? (
        <span role="alert" className="text-rust">
          {refused}
        </span>
      ) : null}
    </fetcher.Form>
  );
}

/** One quiet button that acts on a record. */
export function Act({ intent, ...of }: RecordProps & { readonly intent: keyof typeof WORDS }) {
  const { pathname } = useLocation();
  return (
    <ActForm of={of} to={intent === "restore" ? pathname : of.list}>
      <button
        type="submit"
        name="intent"
        value={intent}
        className="button button-plain"
        aria-label={`${WORDS[intent]} ${of.name}`}
      >
        {WORDS[intent]}
      </button>
    </ActForm>
  );
}

/** Records of a kind but one, as it may be the same as one of them. */
export const othersThan = (id: string, all: readonly { readonly id: string; readonly name: string }[]) =>
  all.flatMap((each) => (each.id === id ? [] : [{ id: each.id, name: each.name }]));

interface ActsProps extends RecordProps {
  /** Others of its kind that may be the same thing, entered twice. */
  readonly others?: readonly { readonly id: string; readonly name: string }[];
}

/** Everything that keeps a record tidy, each in one press: rename, duplicate, merge, archive, delete. */
export function Acts({ others = [], ...of }: ActsProps) {
  const { pathname } = useLocation();
  const [open, setOpen] = useState<"rename" | "merge" | null>(null);
  const toggle = (which: "rename" | "merge") => () => setOpen(open === which ? null : which);
  const hasName = of.kind !== "bench";
  return (
    <div data-acts className="-ml-2 text-sm print:hidden" role="group" aria-label={`Keep ${of.name} tidy`}>
      {hasName ? (
        <>
          <button
            type="button"
            className="button button-plain"
            aria-expanded={open === "rename"}
            onClick={toggle("rename")}
          >
            Rename
          </button>
          <Act {...of} intent="duplicate" />
        </>
      ) : null}
      {others.length ? (
        <button
          type="button"
          className="button button-plain"
          aria-expanded={open === "merge"}
          onClick={toggle("merge")}
        >
          Merge
        </button>
      ) : null}
      <Act {...of} intent={of.archived ? "restore" : "archive"} />
      <Act {...of} intent="delete" />
      {open === "rename" ? (
        <div key={of.name} className="ml-2">
          <ActForm of={of} to={pathname}>
            <label className="contents">
              <span>New name</span>
              <input
                name="name"
                defaultValue={of.name}
                className="input w-72 max-w-full"
                maxLength={120}
                required
                autoFocus
                onFocus={(event) => event.target.select()}
              />
            </label>
            <button type="submit" name="intent" value="rename" className="button">
              Save the name
            </button>
          </ActForm>
        </div>
      ) : null}
      {open === "merge" ? (
        <div className="ml-2">
          <ActForm of={of} to={of.list}>
            <label className="contents">
              <span>The same as</span>
              <select name="into" className="input w-auto">
                {others.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <button type="submit" name="intent" value="merge" className="button">
              Make them one
            </button>
            <span className="text-quiet">
              Everything of {of.name} moves there. It keeps its own facts and takes those it lacks.
            </span>
          </ActForm>
        </div>
      ) : null}
    </div>
  );
}
