import { useCallback, useContext } from "react";
import { UNSAFE_DataRouterContext, useRevalidator } from "react-router";
import { whenIdle } from "./whenIdle";

/**
 * Asks for the page's data again by itself, without coming between a save or a page that is on its way. The router itself is asked: what
 * React has rendered of it may be older.
 */
export function useLookAgain(): () => void {
  const { revalidate } = useRevalidator();
  const router = useContext(UNSAFE_DataRouterContext)?.router;
  return useCallback(() => {
    if (router) whenIdle(router, () => void revalidate());
  }, [router, revalidate]);
}
