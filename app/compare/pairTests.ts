import { dbContext } from "#app/context";
import { systemOf } from "#app/ui/systemCookie";
import { readPair } from "#app/services/comparison/pair.server";
import { onDesk } from "#app/services/comparison/answer.server";
import type { Route } from "./+types/pairTests";

/** The tests of a pair with their records, for the worker that solves it anew. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const ask = readPair(new URL(request.url).searchParams);
  const { value } = await onDesk(context.get(dbContext), request, "pair", { ask, system: systemOf(request) });
  return Response.json(value.paired);
}
