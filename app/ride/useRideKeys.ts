import { useEffect, useRef, type RefObject } from "react";
import { isInOverlay, isLetterPress } from "#app/ui/letterKeys";

/**
 * The ride's keys: each does its act wherever the focus is on the page, unless something is being typed or lies over it. Where nothing
 * else holds the focus when the page opens, the fields get it.
 *
 * @param fields the part of the page that gets the focus
 */
export function useRideKeys(
  fields: RefObject<HTMLElement | null>,
  acts: Readonly<Record<string, () => void>>,
): void {
  const keys = useRef(acts);
  useEffect(() => {
    keys.current = acts;
  });
  useEffect(() => {
    if (document.activeElement === document.body) fields.current?.focus({ preventScroll: true });
    let leader = false;
    const onKey = (event: KeyboardEvent) => {
      if (isInOverlay(event.target)) return;
      if (event.key === "Escape") keys.current["Escape"]?.();
      if (!isLetterPress(event)) return;
      const act = leader ? undefined : keys.current[event.key];
      leader = event.key === "g";
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [fields]);
}
