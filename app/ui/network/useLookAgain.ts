import { useCallback } from "react";
import { useRevalidator } from "react-router";
import { whenQuiet } from "./patientFetch";

/** Asks for the page's data again by itself, without coming between a save or a page that is on its way. */
export function useLookAgain(): () => void {
  const { revalidate } = useRevalidator();
  return useCallback(() => whenQuiet(() => void revalidate()), [revalidate]);
}
