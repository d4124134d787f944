import { data } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { idOf } from "#app/ui/require.server";
import { changesOf } from "#db/people/trail";
import type { Route } from "./+types/trail";

/** What has a trail of its own on its page. */
const KINDS = z.enum(
  [
    "bike",
    "pack",
    "rider",
    "set_up",
    "instrument",
    "bench",
    "course",
    "method",
    "plan",
    "test",
    "sweep",
    "climb",
    "sheet",
  ],
  { error: "There is nothing at this address." },
);

/** Who changed something, and what: the newest first. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const kind = KINDS.safeParse(params.kind);
  if (!kind.success) throw data("There is nothing at this address.", { status: 404 });
  const before = Number(new URL(request.url).searchParams.get("before") ?? NaN);
  return changesOf(
    context.get(dbContext),
    kind.data,
    idOf(params.id, "There is nothing at this address."),
    Number.isInteger(before) ? before : undefined,
  );
}
