import { analysisOf } from "#app/services/analysis.server";
import { found, idOf } from "#app/ui/require.server";
import type { TestResults } from "#core/analysis";
import type { Database } from "#db/client";
import { findTest, listRides } from "#db/tests";

const GONE = "There is no such test.";

/** A title as a file's name, for any system: letters and digits of any script, strokes between. */
export function fileName(title: string, ending: string): string {
  const plain = title
    .normalize("NFC")
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-+|-+$/g, "");
  return `${plain.slice(0, 80) || "test"}.${ending}`;
}

/** Headers of a file that is taken away; its name in plain letters, and in its own for browsers that know how (RFC 6266). */
export function fileHeaders(type: string, name: string): Readonly<Record<string, string>> {
  const plain = name.normalize("NFD").replace(/[^\w.-]/g, "");
  return {
    "content-type": `${type}; charset=utf-8`,
    "content-disposition": `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    "cache-control": "no-store",
  };
}

/** A test with its first ride's zone and everything known of it; a sentence where it has no figure. */
export async function exportedTest(db: Database, testId: string) {
  const line = found(await findTest(db, idOf(testId, GONE)), GONE);
  const [[ride], { result }] = await Promise.all([listRides(db, line.id), analysisOf(db, line)]);
  const refusal = !result
    ? "Its figure is still being reckoned: ask again in a moment."
    : result.ok
      ? null
      : `There is no figure yet: ${result.problems.map(({ sentence }) => sentence).join(" ")}`;
  const results: TestResults | null = result?.ok ? result.value : null;
  return { line, zone: ride?.zone ?? "UTC", results, refusal };
}

/** A refusal as a page of plain text. */
export const refusedFile = (sentence: string, status = 422) =>
  new Response(`${sentence}\n`, { status, headers: { "content-type": "text/plain; charset=utf-8" } });
