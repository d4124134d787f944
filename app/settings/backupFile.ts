import { createReadStream } from "node:fs";
import { stat } from "node:fs/promises";
import { Readable } from "node:stream";
import { found } from "#app/ui/require.server";
import { deskFolders } from "#app/services/desk.server";
import { backupNamed } from "#db/backup/keeping";
import type { Route } from "./+types/backupFile";

/** One of the desk's backups, to be taken elsewhere. */
export async function loader({ params }: Route.LoaderArgs) {
  const folder = deskFolders.backups;
  const file = found(folder && backupNamed(folder, params.name), "There is no such backup.");
  const { size } = await stat(file);
  return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream, {
    headers: {
      "content-type": "application/gzip",
      "content-length": String(size),
      "content-disposition": `attachment; filename="${params.name}"`,
      "cache-control": "no-store",
    },
  });
}
