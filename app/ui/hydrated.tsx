import { useState, useSyncExternalStore } from "react";
import { v7 as uuidv7 } from "uuid";

const nothingToHear = () => () => undefined;

/** Whether the page runs in a browser: false in what the server sends, true once it is alive. */
export function useHydrated(): boolean {
  return useSyncExternalStore(
    nothingToHear,
    () => true,
    () => false,
  );
}

/** A UUIDv7 made by the browser, one for as long as the component stays; empty until the page is alive. */
export function useClientId(): string {
  const alive = useHydrated();
  const [id] = useState(() => uuidv7());
  return alive ? id : "";
}
