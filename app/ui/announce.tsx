import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import { announce, onSaid, saidNow } from "#app/ui/announcer";

const SILENT = { text: "", count: 0 };
const silent = () => SILENT;
/** A no-break space after every other sentence: the same words again are then a change, which is told. */
const AGAIN = "\u00a0";
/** What was told is gone after a while: who reads through the page meets it once, where it belongs, ms. */
const STAYS_MS = 6000;
/** A figure that is still moving is told once it rests, ms. */
const REST_MS = 900;

/** The one region whose changes are read out. */
export function Announcer() {
  const { text, count } = useSyncExternalStore(onSaid, saidNow, silent);
  const [past, setPast] = useState(0);
  useEffect(() => {
    const timer = setTimeout(() => setPast(count), STAYS_MS);
    return () => clearTimeout(timer);
  }, [count]);
  if (past === count) return <p role="status" className="sr-only" data-said={count} />;
  return (
    <p role="status" className="sr-only" data-said={count}>
      {text}
      {count % 2 ? AGAIN : ""}
    </p>
  );
}

/** Tells a sentence when it changes and has rested a moment; not the one the page opened with. */
export function useAnnounced(text: string | null): void {
  const before = useRef(text);
  useEffect(() => {
    if (text === before.current) return;
    const timer = setTimeout(() => {
      before.current = text;
      if (text) announce(text);
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [text]);
}
