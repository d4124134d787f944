import { dbContext } from "#app/context";
import { compute } from "#app/services/compute/pool.server";
import { idOf } from "#app/ui/require.server";
import type { Route } from "./+types/longFile";

/** Logs and results of a long strip, for its page. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const testId = idOf(params.testId, "There is no such test.");
  const text = await compute(context.get(dbContext), "longStrip", { testId }, request.signal);
  return new Response(text, {
    headers: { "content-type": "application/json", "cache-control": "no-store" },
  });
}
