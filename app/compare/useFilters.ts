import { useRef } from "react";
import { useLocation, useNavigation, useSearchParams } from "react-router";

/** How long a choice stands before its page must have come, ms. */
const RECENT_MS = 3000;

/**
 * The filters of an address: what it holds, or will once the page on its way is there; and how one is changed. A choice made
 * before the page of the one before it has come builds on that one.
 */
export function useFilters() {
  const [shown, setSearch] = useSearchParams();
  const here = useLocation();
  const coming = useNavigation().location;
  const text = coming?.pathname === here.pathname ? coming.search : `?${shown}`;
  const asked = useRef({ text, atMs: -RECENT_MS });
  const change = (edit: (next: URLSearchParams) => void) => {
    const nowMs = performance.now();
    const next = new URLSearchParams(nowMs - asked.current.atMs < RECENT_MS ? asked.current.text : text);
    edit(next);
    asked.current = { text: `?${next}`, atMs: nowMs };
    setSearch(next, { preventScrollReset: true });
  };
  const pick = (name: string, value: string) =>
    change((next) => (value ? next.set(name, value) : next.delete(name)));
  return { search: new URLSearchParams(text), change, pick };
}
