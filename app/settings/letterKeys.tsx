import { useSyncExternalStore } from "react";
import { lettersAct, setLettersAct } from "#app/ui/letterKeys";

const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether single letters act: they get in the way of those who speak to their computer, or press keys by mistake. */
export function LetterKeys() {
  const on = useSyncExternalStore(subscribe, lettersAct, () => true);
  return (
    <section className="xl:col-span-2">
      <h2 className="mb-2">Keys</h2>
      <label className="flex min-h-10 items-center gap-2">
        <input
          type="checkbox"
          checked={on}
          onChange={(event) => {
            setLettersAct(event.target.checked);
            for (const listener of listeners) listener();
          }}
          className="size-5 accent-spruce"
        />
        Single letters act (g and a figure, ?, and on a ride or a strip its own keys), in this browser
      </label>
    </section>
  );
}
