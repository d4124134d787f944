import { useEffect, useRef } from "react";

/** The ride's keys: each does its act unless something is being typed, or a station is being gone to. */
export function useRideKeys(acts: Readonly<Record<string, () => void>>): void {
  const keys = useRef(acts);
  useEffect(() => {
    keys.current = acts;
  });
  useEffect(() => {
    let leader = false;
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      const act = leader ? undefined : keys.current[event.key];
      leader = event.key === "g";
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
