import { createReadStream } from "node:fs";
import { mkdtemp, rm, stat } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { dbContext } from "#app/context";
import { compute } from "#app/services/compute/pool.server";
import { fileHeaders } from "#app/services/files.server";
import type { Route } from "./+types/deskFile";

/** Everything of the desk as open files, in one zip. */
export async function loader({ context }: Route.LoaderArgs) {
  const folder = await mkdtemp(join(tmpdir(), "barometron-desk-"));
  const file = join(folder, "desk.zip");
  const gone = () => void rm(folder, { recursive: true, force: true });
  try {
    await compute(context.get(dbContext), "exportDesk", { file });
    const { size } = await stat(file);
    const stream = createReadStream(file).on("close", gone);
    return new Response(Readable.toWeb(stream) as ReadableStream, {
      headers: { ...fileHeaders("application/zip", "desk.zip"), "content-length": String(size) },
    });
  } catch (error) {
    gone();
    throw error;
  }
}
