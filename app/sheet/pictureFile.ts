import { dbContext } from "#app/context";
import { compute } from "#app/services/compute/pool.server";
import { bytesBody, refusedFile } from "#app/services/files.server";
import { isPlainDrawing } from "#app/ui/sheet/plainDrawing";
import type { Route } from "./+types/pictureFile";

/** A chart has fewer letters than this. */
const MOST_BYTES = 2_000_000;
const MOST_WIDTH = 4000;
/** A chart of a page, sent as it is drawn there, as a picture with the shipped letters. */
export async function action({ request, context }: Route.ActionArgs) {
  const svg = await request.text();
  const width = Number(new URL(request.url).searchParams.get("width"));
  if (svg.length > MOST_BYTES) return refusedFile("That is no chart: it is too large.", 413);
  if (!isPlainDrawing(svg)) return refusedFile("That is no chart of a page.", 400);
  if (!(width >= 100 && width <= MOST_WIDTH))
    return refusedFile("A picture is 100 to 4000 pixels wide.", 400);
  const png = await compute(context.get(dbContext), "picture", { svg, width }).catch(() => null);
  if (!png) return refusedFile("That is no chart of a page.", 400);
  return new Response(bytesBody(png), {
    headers: { "content-type": "image/png", "cache-control": "no-store" },
  });
}
