import { dbContext } from "#app/context";
import { cardAskSchema, cardFrom } from "#app/services/cards/card.server";
import { compute } from "#app/services/compute/pool.server";
import { DRAWING_THEMES } from "#app/services/drawing/colours";
import { bytesBody, drawnFile, fileHeaders, refusedFile } from "#app/services/files.server";
import { fileName } from "#core/io";
import { decimalOf } from "#app/ui/readersLanguage";
import { systemOf } from "#app/ui/systemCookie";
import { CARD_SIZES, type CardSize } from "#core/telling";
import type { Route } from "./+types/cardFile";

const TYPES = { png: "image/png", svg: "image/svg+xml" } as const;
type Format = keyof typeof TYPES;
const isFormat = (text: string): text is Format => text in TYPES;
const isSize = (text: string | null): text is CardSize => text !== null && text in CARD_SIZES;

/** A card for a film, as PNG or SVG; shown in a page when `shown` is asked for, else taken away. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const { kind, format } = params;
  const search = new URL(request.url).searchParams;
  const asked = cardAskSchema.safeParse({ ...Object.fromEntries(search), kind });
  if (!asked.success || !isFormat(format))
    return refusedFile("A card is had as png or svg, of what the desk has.", 404);
  const db = context.get(dbContext);
  const system = systemOf(request);
  const from = await cardFrom(db, request, asked.data, system);
  if (!from.ok) return refusedFile(from.problems.map(({ sentence }) => sentence).join(" "));
  const size = search.get("size");
  const look = {
    size: isSize(size) ? size : "wide",
    theme: DRAWING_THEMES.find((each) => each === search.get("theme")) ?? "light",
    system,
  } as const;
  const decimal = decimalOf(request);
  return drawnFile(async () => {
    const drawn = await compute(db, "drawCard", { from: from.value, look, format, decimal });
    if (!drawn) return refusedFile("There is no figure yet.");
    const body = typeof drawn.body === "string" ? drawn.body : bytesBody(drawn.body);
    const headers = fileHeaders(TYPES[format], fileName(`${drawn.title} ${kind} ${look.size}`, format));
    return new Response(body, {
      headers: search.has("shown") ? { ...headers, "content-disposition": "inline" } : headers,
    });
  });
}
