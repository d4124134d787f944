import { data } from "react-router";
import { z } from "zod";
import { StaleSave, type Hand } from "#db/entities";
import type { Stale, StoredTexts } from "./stale";

const isId = (text: string) => z.uuid().safeParse(text).success;
/** Saves of one form that are looked at: more answers than these are never late at once. */
const MOST_OWN = 40;

/** The version a form was opened on, with its own saves since; undefined where it names none. */
export function seenVersion(form: FormData): Hand | undefined {
  const version = Number(form.get("version") ?? NaN);
  if (!Number.isInteger(version) || version <= 0) return undefined;
  const saveId = String(form.get("saveId") ?? "");
  const own = String(form.get("own") ?? "")
    .split(",")
    .filter(isId)
    .slice(-MOST_OWN);
  return { version, saveId: isId(saveId) ? saveId : null, own };
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
