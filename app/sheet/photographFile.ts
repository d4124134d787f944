import { dbContext } from "#app/context";
import { bytesBody } from "#app/services/files.server";
import { found, idOf } from "#app/ui/require.server";
import { findPhotograph } from "#db/photographs";
import type { Route } from "./+types/photographFile";

const GONE = "There is no such photograph.";

/** A photograph of a sheet: it never changes. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const { type, bytes } = found(
    await findPhotograph(context.get(dbContext), idOf(params.photographId, GONE)),
    GONE,
  );
  return new Response(bytesBody(bytes), {
    headers: { "content-type": type, "cache-control": "private, max-age=31536000, immutable" },
  });
}
