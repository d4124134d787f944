import { Form, href, useRouteLoaderData } from "react-router";
import type { NumbersChoice } from "#app/ui/readersLanguage";

const CHOICES: readonly (readonly [NumbersChoice, string])[] = [
  ["language", "as this browser's language"],
  ["point", "25.5"],
  ["comma", "25,5"],
];

/** How numbers are written on the pages. Typed they are read either way; files and links always have a point. */
export function Numbers() {
  const root = useRouteLoaderData("root") as { readonly numbers?: NumbersChoice } | undefined;
  const chosen = root?.numbers ?? "language";
  return (
    <section className="xl:col-span-2">
      <h2 className="mb-2">Numbers</h2>
      <Form
        method="post"
        action={href("/units")}
        reloadDocument
        className="flex flex-wrap gap-2"
        aria-label="Numbers"
      >
        <input type="hidden" name="back" value={href("/settings")} />
        {CHOICES.map(([value, says]) => (
          <button
            key={value}
            name="numbers"
            value={value}
            aria-pressed={chosen === value}
            className={`button ${chosen === value ? "border-spruce font-bold" : "button-plain"}`}
          >
            {says}
          </button>
        ))}
      </Form>
      <p className="mt-2 text-sm text-quiet">
        Typed, either is understood. Files have a point. Days are written with the month as a word, so that no
        order can be mistaken.
      </p>
    </section>
  );
}
