import { useEffect, useSyncExternalStore } from "react";
import { useNavigation } from "react-router";
import { copyShown, onCopy } from "#app/ui/network/keptCopy";
import { useLookAgain } from "#app/ui/network/useLookAgain";
import { NOTHING_WAITS, onWaiting, tryNow, waitingNow } from "#app/ui/network/patientFetch";

const nothing = () => NOTHING_WAITS;

/** How often a page that is a kept copy asks the desk again, ms. */
const AGAIN_MS = 10_000;

/** Whether the page is a kept copy; while it is, the desk is asked for the page again, at once when the network comes back. */
function useCopy(): boolean {
  const isCopy = useSyncExternalStore(onCopy, copyShown, () => false);
  const lookAgain = useLookAgain();
  useEffect(() => {
    if (!isCopy) return;
    lookAgain();
    const asking = setInterval(lookAgain, AGAIN_MS);
    window.addEventListener("online", lookAgain);
    return () => {
      clearInterval(asking);
      window.removeEventListener("online", lookAgain);
    };
  }, [isCopy, lookAgain]);
  return isCopy;
}

/** While something waits for a network: what, and that nothing is lost. */
export function NetworkNotice() {
  const { saves, pages } = useSyncExternalStore(onWaiting, waitingNow, nothing);
  const isCopy = useCopy();
  const { state } = useNavigation();
  const words = saves
    ? "No network: not saved yet, trying again. What you typed stays here."
    : isCopy && state === "idle"
      ? "The desk does not answer: this page is as it was last seen here, and updates by itself."
      : pages
        ? "No network: the page comes when it is back."
        : null;
  return (
    <div role="status" className="print:hidden">
      {words ? (
        <div className="sticky top-0 z-10 flex flex-wrap items-center gap-3 border-b border-rule border-l-4 border-l-ochre-fill bg-sheet px-4 py-1.5 text-sm md:px-6">
          <span>{words}</span>
          {saves || pages ? (
            <button type="button" className="button button-plain" onClick={tryNow}>
              Try now
            </button>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
