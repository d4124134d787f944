import { dbContext } from "#app/context";
import { fileName } from "#core/io";
import { found, idOf } from "#app/ui/require.server";
import { writeBundle } from "#core/io";
import { loadRecord } from "#db/record";
import type { Route } from "./+types/recordFile";

const GONE = "There is no such test.";

/** The test as an open bundle: what the page's worker reckons from, and what a reader who doubts may take away. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const record = found(await loadRecord(context.get(dbContext), idOf(params.testId, GONE)), GONE);
  return Response.json(writeBundle([record]), {
    headers: {
      "content-disposition": `inline; filename*=UTF-8''${encodeURIComponent(fileName(record.test.title, "json"))}`,
      "cache-control": "no-store",
    },
  });
}
