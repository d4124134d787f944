import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from "@headlessui/react";
import { useMemo, useState } from "react";
import { useHydrated } from "#ui/hydrated";
import { matching, type Choice } from "./matching";

interface SearchListProps {
  /** Name under which the choice is sent with its form. */
  readonly name: string;
  readonly choices: readonly Choice[];
  readonly chosen?: string;
  /** Said while nothing is chosen. */
  readonly prompt?: string;
  readonly id?: string;
  readonly label?: string;
}

/** From so many on, a list is searched by typing. */
const MANY = 12;
/** Choices shown at once of those that match. */
const MOST_SHOWN = 50;

/** The list that every browser has. */
function NativeList({ name, choices, chosen = "", prompt, id, label }: SearchListProps) {
  return (
    <select id={id} name={name} className="input min-w-0 flex-1" aria-label={label} defaultValue={chosen}>
      {prompt === undefined ? null : (
        <option value="" disabled>
          {prompt}
        </option>
      )}
      {choices.map(({ value, label: text }) => (
        <option key={value} value={value}>
          {text}
        </option>
      ))}
    </select>
  );
}

function TypedList({ name, choices, chosen = "", prompt, id, label }: SearchListProps) {
  const [value, setValue] = useState(chosen);
  const [typed, setTyped] = useState("");
  const found = useMemo(() => matching(choices, typed), [choices, typed]);
  const labelOf = (each: string) => choices.find((choice) => choice.value === each)?.label ?? "";
  return (
    <Combobox
      as="div"
      className="min-w-0 flex-1"
      name={name}
      value={value}
      onChange={(each) => setValue(each ?? "")}
      onClose={() => setTyped("")}
      immediate
    >
      <ComboboxInput
        id={id}
        className="input w-full"
        aria-label={label}
        placeholder={prompt}
        autoComplete="off"
        displayValue={labelOf}
        onChange={(event) => setTyped(event.target.value)}
      />
      <ComboboxOptions
        anchor="bottom start"
        className="sheet z-20 max-h-80 w-(--input-width) overflow-y-auto py-1 empty:invisible"
      >
        {found.slice(0, MOST_SHOWN).map((choice) => (
          <ComboboxOption
            key={choice.value}
            value={choice.value}
            className="min-h-9 cursor-pointer px-3 py-1.5 data-focus:bg-hover data-selected:font-bold"
          >
            {choice.label}
          </ComboboxOption>
        ))}
        {found.length > MOST_SHOWN ? (
          <p className="px-3 py-1.5 text-sm text-quiet">
            {found.length - MOST_SHOWN} more: type another word of it.
          </p>
        ) : null}
        {found.length === 0 ? (
          <p className="px-3 py-1.5 text-sm text-quiet">None of them has “{typed}”.</p>
        ) : null}
      </ComboboxOptions>
    </Combobox>
  );
}

/** One of a list, in a form: searched by typing where there are many, else the browser's own. */
export function SearchList(props: SearchListProps) {
  const alive = useHydrated();
  return alive && props.choices.length >= MANY ? <TypedList {...props} /> : <NativeList {...props} />;
}
