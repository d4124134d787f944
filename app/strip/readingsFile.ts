import { dbContext } from "#app/context";
import { fileHeaders, refusedFile } from "#app/services/files.server";
import { fileName } from "#core/io";
import { systemOf } from "#app/ui/systemCookie";
import { writeCsv } from "#core/io";
import { readingRows } from "#core/telling";
import { exportedTest } from "./exported.server";
import type { Route } from "./+types/readingsFile";

/** The readings of a test with what the answer has there, as CSV or JSON. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  if (params.format !== "csv" && params.format !== "json")
    return refusedFile("Readings are to be had as csv or json.", 404);
  const { line, results, refusal } = await exportedTest(context.get(dbContext), params.testId);
  if (!results) return refusedFile(refusal ?? "");
  const rows = readingRows(results, systemOf(request));
  const title = `${line.bikeName} ${line.test.title} readings`;
  return params.format === "json"
    ? new Response(JSON.stringify(rows), {
        headers: fileHeaders("application/json", fileName(title, "json")),
      })
    : new Response(writeCsv(rows), { headers: fileHeaders("text/csv", fileName(title, "csv")) });
}
