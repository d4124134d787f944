import { data } from "react-router";
import { StaleSave } from "#db/entities";
import type { Stale, StoredTexts } from "./stale";

/** The version a form was opened on; undefined where it names none. */
export function seenVersion(form: FormData): number | undefined {
  const seen = Number(form.get("version") ?? NaN);
  return Number.isInteger(seen) && seen > 0 ? seen : undefined;
}

/**
 * Saves; where the record was changed meanwhile, nothing is written and what is stored now comes back, so that both stand
 * side by side.
 *
 * @param stored the record as it is now, as the form's texts
 */
export async function saveOrStale<T>(
  save: () => Promise<T>,
  stored: () => StoredTexts | Promise<StoredTexts>,
): Promise<
  { readonly saved: T; readonly stale?: never } | { readonly stale: Stale; readonly saved?: never }
> {
  try {
    return { saved: await save() };
  } catch (error) {
    if (!(error instanceof StaleSave)) throw error;
    return { stale: { version: error.version, stored: await stored() } };
  }
}

/** The answer to a form whose record was changed meanwhile: all that was typed, and what is stored. */
export const staleReply = <T extends object>(reply: T, stale: Stale) =>
  data({ ...reply, stale }, { status: 409 });
