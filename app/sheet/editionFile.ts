import { dbContext } from "#app/context";
import { fileOf } from "#app/services/sheets/files.server";
import { footOf } from "#app/services/sheets/foot";
import { refusedFile } from "#app/services/files.server";
import { decimalOf } from "#app/ui/readersLanguage";
import { systemOf } from "#app/ui/systemCookie";
import { PAPERS } from "#core/telling";
import { editionAt } from "./sheetAt.server";
import type { Route } from "./+types/editionFile";

/** A sheet as it was published, as a file. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const { edition } = await editionAt(db, params);
  if (edition.withdrawnAt) return refusedFile("This edition was taken back.", 410);
  const { document, drawings, paper, bundle, reference } = edition.body;
  const page = {
    ...{ document, drawings, bundle },
    system: systemOf(request),
    decimal: decimalOf(request),
    paper: PAPERS.find((each) => each === paper) ?? "A4",
    foot: footOf({ ...edition, reference }),
  };
  return fileOf(db, page, params.format);
}
