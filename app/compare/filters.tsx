import { useState, type ReactNode } from "react";

interface PickProps {
  readonly name: string;
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [value: string, label: string])[];
  readonly onPick: (name: string, value: string) => void;
}

/** One filter: a choice that goes into the address at once. */
export function Pick({ name, label, value, options, onPick }: PickProps) {
  return (
    <label className="grid gap-0.5 text-sm">
      <span className="text-quiet">{label}</span>
      <select
        name={name}
        className="input w-auto max-w-52"
        value={value}
        onChange={(event) => onPick(name, event.target.value)}
      >
        {options.map(([each, text]) => (
          <option key={each} value={each}>
            {text}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Filters that are seldom changed, behind a word; open where one of them is set, and never closed under somebody's hand. */
export function MoreFilters({ set, children }: { readonly set: boolean; readonly children: ReactNode }) {
  const [open, setOpen] = useState(set);
  const [wasSet, setWasSet] = useState(set);
  if (set !== wasSet) {
    setWasSet(set);
    if (set) setOpen(true);
  }
  return (
    <details
      className="group self-center"
      open={open}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer py-2 text-sm text-spruce underline underline-offset-3">
        <span className="group-open:hidden">More filters</span>
        <span className="hidden group-open:inline">Fewer filters</span>
      </summary>
      <div className="flex flex-wrap items-end gap-3">{children}</div>
    </details>
  );
}

/** The filters of a list, side by side; without script a button sends them. */
export function Filters({ children }: { readonly children: ReactNode }) {
  return (
    <div className="mb-4 flex flex-wrap items-end gap-3">
      {children}
      <noscript>
        <button className="button">Show</button>
      </noscript>
    </div>
  );
}
