import { dbContext } from "#app/context";
import { fileOf } from "#app/services/sheets/files.server";
import { footOf } from "#app/services/sheets/foot";
import { decimalOf } from "#app/ui/readersLanguage";
import { systemOf } from "#app/ui/systemCookie";
import { pageAt } from "./sheetAt.server";
import type { Route } from "./+types/draftFile";

/** A sheet as it is now, as a file: PDF, one HTML page, Markdown, or the bundle of its test. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const system = systemOf(request);
  const { line, gathered } = await pageAt(db, request, params.sheetId, system);
  const page = {
    ...gathered,
    system,
    decimal: decimalOf(request),
    paper: line.options.paper,
    foot: footOf(null),
  };
  return fileOf(db, page, params.format);
}
