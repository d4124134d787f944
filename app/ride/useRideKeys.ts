import { useEffect, useRef, type RefObject } from "react";
import { isLetterPress } from "#app/ui/letterKeys";

/**
 * The ride's keys: each does its act while the fields hold the focus and nothing is being typed. Where nothing else holds it
 * when the page opens, the fields get it.
 *
 * @param fields the part of the page in which the keys act
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
    const part = fields.current;
    if (!part) return;
    if (document.activeElement === document.body) part.focus({ preventScroll: true });
    let leader = false;
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Escape") keys.current["Escape"]?.();
      if (!isLetterPress(event)) return;
      const act = leader ? undefined : keys.current[event.key];
      leader = event.key === "g";
      if (!act) return;
      event.preventDefault();
      act();
    };
    part.addEventListener("keydown", onKey);
    return () => part.removeEventListener("keydown", onKey);
  }, [fields]);
}
