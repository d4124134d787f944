import { dbContext } from "#app/context";
import { bytesBody } from "#app/services/files.server";
import { found, idOf } from "#app/ui/require.server";
import { findEntryPhotograph } from "#db/photographs";
import type { Route } from "./+types/entryPhotographFile";

const GONE = "There is no such photograph.";

/** A photograph of an entry: it never changes. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const { type, bytes } = found(
    await findEntryPhotograph(
      context.get(dbContext),
      idOf(params.testId, GONE),
      idOf(params.photographId, GONE),
    ),
    GONE,
  );
  return new Response(bytesBody(bytes), {
    headers: { "content-type": type, "cache-control": "private, max-age=31536000, immutable" },
  });
}
