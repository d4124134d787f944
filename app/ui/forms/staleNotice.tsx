import { useEffect, useRef, useState, type RefObject } from "react";
import type { Stale } from "#app/ui/forms/stale";

interface StaleNoticeProps {
  readonly stale: Stale;
  readonly form: RefObject<HTMLFormElement | null>;
  /** Where a form is saved as it is typed: puts what was typed in place. Else saving again does. */
  readonly onMine?: () => void;
  /** Where what was typed is kept in the browser: lets go of it. */
  readonly onTheirs?: () => void;
}

interface Difference {
  readonly name: string;
  readonly label: string;
  readonly typed: string;
  readonly stored: string;
}

/** What a field is called on the page; its name where it has no label. */
function labelOf(form: HTMLFormElement, name: string): string {
  const field = form.elements.namedItem(name);
  const label =
    field instanceof HTMLElement && "labels" in field ? (field as HTMLInputElement).labels?.[0] : null;
  return label?.textContent?.trim() || name;
}

/** The fields in which what was typed and what is stored differ. */
function differences(form: HTMLFormElement, { stored }: Stale): readonly Difference[] {
  const typed = new FormData(form);
  return Object.entries(stored).flatMap(([name, now = ""]) => {
    const mine = String(typed.get(name) ?? "");
    return mine.trim() === now.trim() ? [] : [{ name, label: labelOf(form, name), typed: mine, stored: now }];
  });
}

/** Two versions of a record side by side: what was typed here stays in the form, what was saved meanwhile stands beside it. */
export function StaleNotice({ stale, form, onMine, onTheirs }: StaleNoticeProps) {
  const [rows, setRows] = useState<readonly Difference[]>([]);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    heading.current?.focus();
    const timer = setTimeout(() => {
      if (form.current) setRows(differences(form.current, stale));
    });
    return () => clearTimeout(timer);
  }, [form, stale]);
  return (
    <section role="alert" className="sheet border-l-4 border-l-ochre p-4">
      <h2 ref={heading} tabIndex={-1}>
        This was changed meanwhile
      </h2>
      <p className="my-2">
        Nothing you typed is lost: it is still in the form below and was not saved yet.{" "}
        {onMine
          ? "Put yours in place, or take what is stored."
          : "Save again to put yours in place, or take what is stored."}
      </p>
      {rows.length ? (
        <table className="table w-full text-sm">
          <caption className="sr-only">What was changed meanwhile, and what you typed</caption>
          <thead>
            <tr>
              <th scope="col">Field</th>
              <th scope="col">Yours</th>
              <th scope="col">Stored now</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, label, typed, stored }) => (
              <tr key={name}>
                <th scope="row" className="text-left font-normal">
                  {label}
                </th>
                <td>{typed || "empty"}</td>
                <td>{stored || "empty"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      <p className="mt-3 flex flex-wrap gap-3">
        {onMine ? (
          <button type="button" className="button" onClick={onMine}>
            Put mine in place
          </button>
        ) : null}
        <a href="" className="button" onClick={onTheirs}>
          Take what is stored
        </a>
      </p>
    </section>
  );
}
