import { countOf } from "#core/base";
import { useEffect, useRef } from "react";
import { useMatches, useRevalidator } from "react-router";
import { useLookAgain } from "../network/useLookAgain";

/** How soon a page that waits asks again, and the longest it pauses between, ms. */
const SOON_MS = 500;
const RARE_MS = 4000;

/** How many tests a page's data says are still being calculated. */
function pendingIn(data: unknown): number {
  const pending = (data as { pending?: unknown } | null | undefined)?.pending;
  return typeof pending === "number" ? pending : 0;
}

/** Asks for the page's data again while something of it is still being calculated, less often the longer it takes. */
export function useAskAgain(waiting: boolean): void {
  const { state } = useRevalidator();
  const lookAgain = useLookAgain();
  const pause = useRef(SOON_MS);
  useEffect(() => {
    if (!waiting) pause.current = SOON_MS;
    if (!waiting || state !== "idle") return;
    const timer = setTimeout(() => {
      pause.current = Math.min(RARE_MS, pause.current * 1.5);
      lookAgain();
    }, pause.current);
    return () => clearTimeout(timer);
  }, [waiting, state, lookAgain]);
}

/** Says how many figures of a page are still being calculated, and fills them in as they are ready. */
export function FillIn() {
  const pending = useMatches().reduce((most, { loaderData }) => Math.max(most, pendingIn(loaderData)), 0);
  useAskAgain(pending > 0);
  if (pending === 0) return null;
  return (
    <p
      data-pending={pending}
      className="border-b border-rule bg-sheet px-4 py-1.5 text-sm text-quiet md:px-6 print:hidden"
    >
      {pending === 1
        ? "Calculating one test: its figure here is as last known, and is filled in by itself."
        : `Calculating ${countOf(pending, "test")}: figures here are as last known, and are filled in by themselves.`}
    </p>
  );
}
