import { SECTIONS, PAPERS, type Remark, type SheetDocument } from "#core/telling";
import { unitToken } from "#core/base";
import type { SheetLine } from "#db/sheets";
import { Area, Choose, Line } from "#ui/forms/lines";
import { useSpoken } from "#ui/system";
import { PLACES, sortingField } from "./options";

interface ComposerFieldsProps {
  readonly line: SheetLine;
  readonly document: SheetDocument;
  readonly remarks: readonly Remark[];
  readonly tests: readonly { readonly id: string; readonly name: string }[];
  readonly names: readonly string[];
}

/** Sections whose sentences nobody types. */
const WRITTEN: Readonly<Record<string, string>> = {
  method: "written from the log",
  caveats: "written from the log",
  change: "reckoned",
};

/** What stands on the page: a tick each; what is on and yet has nothing to show says so. */
function Sections({ line: { options }, document }: ComposerFieldsProps) {
  const shown = new Set(document.sections.map(({ key }) => key));
  return (
    <fieldset>
      <legend className="mb-1 font-bold">On the page</legend>
      <input type="hidden" name="sections" value="1" />
      {Object.entries(SECTIONS[options.kind]).map(([key, name]) => {
        const on = !options.off.includes(key);
        return (
          <label key={key} className="flex min-h-9 items-center gap-2 border-b border-rule py-1">
            <input
              type="checkbox"
              name="on"
              value={key}
              defaultChecked={on}
              className="size-5 accent-spruce"
            />
            {name}
            <span className="ml-auto text-sm text-quiet">
              {on && !shown.has(key) ? "nothing to show" : (WRITTEN[key] ?? "")}
            </span>
          </label>
        );
      })}
    </fieldset>
  );
}

/** Each remark with what it is about, to be moved. */
function Sorting({ remarks, line }: ComposerFieldsProps) {
  const say = useSpoken();
  if (remarks.length === 0) return null;
  return (
    <details>
      <summary className="cursor-pointer">Sort the remarks</summary>
      <input type="hidden" name="sorted" value="1" />
      <ul className="mt-2 grid gap-2">
        {remarks.map(({ rootId, distanceM, text, topic }) => (
          <li key={rootId}>
            <label className="grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-2 text-sm">
              <span>
                {say(unitToken(distanceM, "distance", 1))} {text}
              </span>
              <select
                name={sortingField(rootId)}
                defaultValue={line.options.sorting[rootId] ?? topic}
                className="input"
              >
                {PLACES.map((place) => (
                  <option key={place} value={place}>
                    {place}
                  </option>
                ))}
              </select>
            </label>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** What a comparison is under, and which two it sets against each other. */
function Compared({ tests, names, line }: ComposerFieldsProps) {
  const references = [
    { value: "", label: line.options.kind === "comparison" ? "as ridden" : "House" },
    ...names.map((name) => ({ value: name, label: name })),
  ];
  if (line.options.kind === "customer") return null;
  const choices = [
    { value: "", label: "none" },
    ...tests.map(({ id, name }) => ({ value: id, label: name })),
  ];
  return (
    <>
      <Choose
        name="under"
        label={line.options.kind === "comparison" ? "Under" : "Claims also under"}
        options={references}
      />
      {line.options.kind === "comparison" ? (
        <fieldset className="grid gap-3">
          <legend className="mb-1 text-sm font-medium">Set against each other</legend>
          <Choose name="a" label="One" options={choices} />
          <Choose name="b" label="The other" options={choices} />
        </fieldset>
      ) : null}
    </>
  );
}

/** Everything a tester chooses for a sheet. */
export function ComposerFields(props: ComposerFieldsProps) {
  return (
    <>
      <Line name="title" label="Title" />
      <Sections {...props} />
      <Sorting {...props} />
      <Compared {...props} />
      <Area
        name="words"
        label="Own words"
        hint="Paragraphs as they are; *slanted*, **bold**, a line that begins with - is an item."
        rows={5}
      />
      <Line
        name="address"
        label="Address of the page and its data"
        hint="Where you will put them, https://…: printed with a code for phones."
      />
      <Choose name="paper" label="Paper" options={PAPERS.map((value) => ({ value, label: value }))} />
    </>
  );
}
