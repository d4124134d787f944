import { dbContext } from "#app/context";
import { systemOf } from "#app/ui/systemCookie";
import { pairOf, readPair } from "./pair.server";
import type { Route } from "./+types/pairTests";

/** The tests of a pair with their records, for the worker that solves it anew. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const ask = readPair(new URL(request.url).searchParams);
  const { paired } = await pairOf(context.get(dbContext), ask, systemOf(request));
  return Response.json(paired);
}
