import { data } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { displayOf, FAULTS, type Fault, type Stand } from "#core/simulator";
import { findTest } from "#db/tests";
import { displayStream } from "./displayStream.server";
import type { Route } from "./+types/display";

/** Displays that run at once on one server: each is worked out as it goes. */
const MOST_STREAMS = 24;
let open = 0;

const seconds = z.coerce.number().min(0).max(100_000);
const faults = Object.keys(FAULTS) as [Fault, ...Fault[]];
const askedSchema = z.object({
  from: seconds.default(0),
  clock: z.coerce.number().min(1).max(600).default(1),
  fault: z.enum(faults).default("none"),
  faultFrom: seconds.default(0),
  /** "1200-1800,4000-": from and to, s; the last may be open. */
  stands: z
    .string()
    .regex(/^(\d+-\d*(,\d+-\d*)*)?$/)
    .default(""),
});

const standsIn = (text: string): readonly Stand[] =>
  text === ""
    ? []
    : text.split(",").map((each) => {
        const [from, to] = each.split("-");
        return { fromS: Number(from), toS: to ? Number(to) : null };
      });

/** The stand-in display of a rehearsal, streamed. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const GONE = "There is no such rehearsal.";
  const line = found(await findTest(context.get(dbContext), idOf(params.testId, GONE)), GONE);
  const rehearsal = found(
    line.rehearsal,
    "Only a rehearsal has a stand-in display: made-up readings enter no real test.",
  );
  const asked = askedSchema.safeParse(Object.fromEntries(new URL(request.url).searchParams));
  if (!asked.success) return Response.json({ sentences: ["The clock runs from 1 to 600."] }, { status: 400 });
  const { from, clock, fault, faultFrom, stands } = asked.data;
  const lost = Number(request.headers.get("last-event-id") ?? NaN);
  const fromS = Number.isFinite(lost) ? lost + 1 : from;
  const moments = displayOf(rehearsal, { stands: standsIn(stands), fault, faultFromS: faultFrom });
  if (open >= MOST_STREAMS)
    throw data("Too many displays run at once: close one of them and try again.", {
      status: 503,
      headers: { "Retry-After": "5" },
    });
  open += 1;
  let ended = false;
  const done = () => {
    if (!ended) open -= 1;
    ended = true;
  };
  request.signal.addEventListener("abort", done);
  return new Response(displayStream(moments, { fromS, clock }, done), {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store", "x-accel-buffering": "no" },
  });
}
