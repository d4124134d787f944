import { useSyncExternalStore } from "react";
import { NOTHING_WAITS, onWaiting, tryNow, waitingNow } from "#app/ui/network/patientFetch";

const nothing = () => NOTHING_WAITS;

/** While something waits for a network: what, and that nothing is lost. */
export function NetworkNotice() {
  const { saves, pages } = useSyncExternalStore(onWaiting, waitingNow, nothing);
  const words = saves
    ? "No network: not saved yet, trying again. What you typed stays here."
    : pages
      ? "No network: the page comes when it is back."
      : null;
  return (
    <div role="status" className="print:hidden">
      {words ? (
        <div className="sticky top-0 z-10 flex flex-wrap items-center gap-3 border-b border-rule border-l-4 border-l-ochre-fill bg-sheet px-4 py-1.5 text-sm md:px-6">
          <span>{words}</span>
          <button type="button" className="button button-plain" onClick={tryNow}>
            Try now
          </button>
        </div>
      ) : null}
    </div>
  );
}
