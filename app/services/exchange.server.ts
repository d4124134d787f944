import { countOf } from "#core/base";
import { scopeOf, type Database } from "#db/client";
import { exportDesk } from "#db/exchange/exportDesk";
import { BadDesk } from "#db/exchange/format";
import { importDesk } from "#db/exchange/importDesk";
import { deskAddress } from "./desk.server";

/** Writes a desk's open files to a zip, where it holds nobody up. */
export async function exportHere(db: Database, { file }: { readonly file: string }): Promise<void> {
  await exportDesk(deskAddress().url, file, scopeOf(db));
}

/** Takes open files in; the answer is a sentence either way. */
export async function importHere(
  db: Database,
  { file }: { readonly file: string },
): Promise<{ readonly done: boolean; readonly sentence: string }> {
  try {
    const { added, there, unreadable } = await importDesk(deskAddress().url, file, scopeOf(db));
    const damaged = unreadable
      ? ` ${countOf(unreadable, "row")} cannot be read: ./barometron check lists them.`
      : "";
    return {
      done: true,
      sentence: `New: ${countOf(added, "row")}. Here already, and left as they are: ${there}.${damaged}`,
    };
  } catch (error) {
    if (error instanceof BadDesk) return { done: false, sentence: `${error.message} Nothing was changed.` };
    throw error;
  }
}
