import { useState } from "react";
import { href, useFetcher } from "react-router";
import { dayText } from "#core/base";
import type { Change } from "#db/people/trail";

interface Told {
  readonly changes: readonly Change[];
  readonly more: boolean;
}

const DID: Readonly<Record<string, string>> = { insert: "made", update: "changed", delete: "took out" };
const NAMES: Readonly<Record<string, string>> = { entry: "an entry", ride: "a ride", set_up: "the set-up" };
const LONGEST = 60;

/** A column's value in a line: short, and as it is kept. */
function valueText(value: unknown): string {
  if (value === null || value === undefined || value === "") return "nothing";
  const text = typeof value === "object" ? JSON.stringify(value) : String(value);
  return text.length > LONGEST ? `${text.slice(0, LONGEST)} …` : text;
}

/** Columns that tell a person nothing. */
const INNER = /^(id|kind|seq|device|supersedes|position)$|(^|_)id$/;
const isEmpty = (value: unknown) =>
  value === null || value === undefined || value === "" || (Array.isArray(value) && value.length === 0);

/** What became what, column by column; of a record kept as one, field by field. */
function partsOf({ before, after, what }: Change): readonly string[] {
  const flat = (row: Change["before"]) => {
    const { body, ...columns } = row ?? {};
    return { ...columns, ...(typeof body === "object" && body !== null ? (body as object) : {}) } as Record<
      string,
      unknown
    >;
  };
  const [was, is] = [flat(before), flat(after)];
  const keys = [...new Set([...Object.keys(was), ...Object.keys(is)])].filter(
    (key) =>
      !INNER.test(key) &&
      JSON.stringify(was[key]) !== JSON.stringify(is[key]) &&
      (what === "update" || !isEmpty((what === "insert" ? is : was)[key])),
  );
  return keys.map((key) =>
    what === "update"
      ? `${key}: ${valueText(was[key])} → ${valueText(is[key])}`
      : `${key}: ${valueText((what === "insert" ? is : was)[key])}`,
  );
}

function Line({ change, own }: { readonly change: Change; readonly own: string }) {
  const { at, by, tableName, what } = change;
  const thing = tableName === own ? "this" : (NAMES[tableName] ?? tableName);
  return (
    <li className="border-b border-rule py-2 text-sm">
      <span className="text-quiet">
        {dayText(at.slice(0, 10))}, {at.slice(11, 16)} UTC
      </span>{" "}
      <b>{by}</b> {DID[what] ?? what} {thing}
      <span className="block wrap-anywhere text-quiet">{partsOf(change).join("; ")}</span>
    </li>
  );
}

/** Who changed something, and what, the newest first: fetched when it is asked for. */
export function History({ kind, id }: { readonly kind: string; readonly id: string }) {
  const fetcher = useFetcher<Told>();
  const [told, setTold] = useState<(Told & { readonly last: Told }) | null>(null);
  const address = href("/trail/:kind/:id", { kind, id });
  const { data } = fetcher;
  // Earlier changes come behind those that are shown.
  if (data && data !== told?.last)
    setTold({ ...data, changes: merged(told?.changes ?? [], data.changes), last: data });
  const oldest = told?.changes.at(-1);
  return (
    <details
      className="mt-6 print:hidden"
      onToggle={(event) => {
        if (event.currentTarget.open && !told) void fetcher.load(address);
      }}
    >
      <summary className="cursor-pointer text-sm">Who changed what</summary>
      <ol className="mt-2 max-w-3xl" aria-busy={fetcher.state !== "idle"}>
        {told?.changes.map((change) => (
          <Line key={change.id} change={change} own={kind} />
        ))}
      </ol>
      {told && told.changes.length === 0 ? (
        <p className="text-sm text-quiet">Nothing since it was made.</p>
      ) : null}
      {told?.more && oldest ? (
        <button
          type="button"
          className="button button-plain"
          onClick={() => void fetcher.load(`${address}?before=${oldest.id}`)}
        >
          Earlier
        </button>
      ) : null}
    </details>
  );
}

const merged = (before: readonly Change[], more: readonly Change[]) => [
  ...before,
  ...more.filter(({ id }) => before.every((each) => each.id !== id)),
];
