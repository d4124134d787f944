import { useEffect } from "react";
import { Form, href, Link, redirect, useNavigate, useSearchParams } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { isLetterPress } from "#app/ui/letterKeys";
import { found, idOf } from "#app/ui/require.server";
import { useWho } from "#app/ui/who";
import { READING_FIELDS, foldLog, type LiveEntry } from "#core/ride/log";
import { findBike } from "#db/bikes";
import { listEntries } from "#db/log";
import { listEntryPhotographs, takeOffEntryPhotograph } from "#db/photographs";
import { findTest, listRides } from "#db/tests";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { actOnTest } from "./act.server";
import { CheckIn } from "./checkIn";
import { entryTexts } from "./entryForm";
import { clockOf } from "./moment";
import type { Route } from "./+types/photographs";

const GONE = "There is no such test.";

/** Whether something was read off an entry already. */
const isRead = ({ body }: LiveEntry) =>
  READING_FIELDS.some((field) => (body as Partial<Record<string, unknown>>)[field] !== undefined);

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const [bike, rides] = await Promise.all([findBike(db, line.bikeId), listRides(db, line.id)]);
  const shown = await Promise.all(
    rides.map(async (ride) => {
      const log = foldLog(await listEntries(db, ride.id));
      return (await listEntryPhotographs(db, ride.id)).map((photograph) => ({
        ...photograph,
        ride: { id: ride.id, name: ride.name, zone: ride.zone },
        entry:
          log.find(({ rootId, id }) => rootId === photograph.entryId || id === photograph.entryId) ?? null,
      }));
    }),
  );
  return { line, bike: found(bike, GONE), photographs: shown.flat() };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, GONE);
  const form = await request.clone().formData();
  const here = href("/strip/:testId/photographs", { testId });
  const off = z.uuid().safeParse(form.get("takeOff"));
  const ride = (await listRides(db, testId)).find(({ id }) => id === form.get("rideId"));
  if (off.success && ride) {
    await takeOffEntryPhotograph(db, ride.id, off.data);
    return redirect(here);
  }
  const done = await actOnTest(db, testId, request);
  // What was read off is kept: on to the next one.
  if (done instanceof Response) {
    const rides = await listRides(db, testId);
    const all = (await Promise.all(rides.map(({ id }) => listEntryPhotographs(db, id)))).flat();
    const at = all.findIndex(({ id }) => id === new URL(request.url).searchParams.get("at"));
    const next = at >= 0 ? all[at + 1] : undefined;
    return redirect(next ? `${here}?at=${next.id}` : here);
  }
  return done;
}

type Shown = Route.ComponentProps["loaderData"]["photographs"][number];

/** Goes from one to the next with j and k, while nothing is typed. */
function useTurning(before: Shown | undefined, after: Shown | undefined): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isLetterPress(event)) return;
      const to = event.key === "j" ? after : event.key === "k" ? before : undefined;
      if (to) void navigate(`?at=${to.id}`, { preventScrollReset: true });
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, before, after]);
}

/** One photograph, large, and the figures of its entry beside it. */
function ReadOff({
  at,
  after,
  props,
}: {
  readonly at: Shown;
  readonly after: Shown | undefined;
  readonly props: Route.ComponentProps;
}) {
  const system = useSystem();
  const { mayChange } = useWho();
  const { line, bike } = props.loaderData;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-[minmax(0,1fr)_26rem]">
      <img
        src={href("/strip/:testId/photographs/:photographId/picture", {
          testId: line.id,
          photographId: at.id,
        })}
        alt={`The display${at.entry?.timeS ? ` at ${clockOf(at.entry.timeS, at.ride.zone)}` : ""}, photographed`}
        width={at.widthPx}
        height={at.heightPx}
        className="h-auto max-h-[75vh] w-full object-contain"
      />
      <div className="grid gap-4">
        {at.entry && mayChange ? (
          <CheckIn
            key={`${at.id}/${at.entry.id}`}
            bike={bike}
            rideId={at.ride.id}
            isFirst={false}
            folded
            corrects={{
              rootId: at.entry.rootId,
              texts: entryTexts(at.entry, clockOf(at.entry.timeS, at.ride.zone), system),
            }}
            lastResult={props.actionData}
            onTyped={() => undefined}
            onCancel={`?at=${(after ?? at).id}`}
          />
        ) : at.entry ? null : (
          <p>Its entry has not come yet: it waits on the phone that took it.</p>
        )}
        {mayChange ? (
          <Form method="post">
            <input type="hidden" name="rideId" value={at.ride.id} />
            <button name="takeOff" value={at.id} className="button button-plain">
              Take this photograph off
            </button>
          </Form>
        ) : null}
      </div>
    </div>
  );
}

/** Photographs of a test's entries: each large, its figures typed beside it, one after the other. */
export default function PhotographsPage(props: Route.ComponentProps) {
  const { line, photographs } = props.loaderData;
  const [search] = useSearchParams();
  const asked = search.get("at");
  const open = photographs.findIndex(({ entry }) => entry !== null && !isRead(entry));
  const chosen = photographs.findIndex(({ id }) => id === asked);
  const index = chosen >= 0 ? chosen : Math.max(0, open);
  const [before, at, after] = [photographs[index - 1], photographs[index], photographs[index + 1]];
  useTurning(before, after);
  const left = photographs.filter(({ entry }) => entry && !isRead(entry)).length;
  return (
    <Page
      title="Photographs of the display"
      line={`${line.bikeName}, ${line.test.title}: type what each shows; saving goes on to the next. Keys j and k turn.`}
      next={
        <Link to={href("/strip/:testId", { testId: line.id })} className="button button-main">
          Back to the strip
        </Link>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-4 p-4 md:p-6">
        {at ? (
          <>
            <nav aria-label="Photographs" className="flex flex-wrap items-center gap-3">
              {before ? (
                <Link to={`?at=${before.id}`} className="button" preventScrollReset>
                  Before
                </Link>
              ) : null}
              <span>
                {index + 1} of {photographs.length}, {left === 0 ? "all read" : `${left} to be read`}
              </span>
              {after ? (
                <Link to={`?at=${after.id}`} className="button" preventScrollReset>
                  Next
                </Link>
              ) : null}
            </nav>
            <ReadOff at={at} after={after} props={props} />
          </>
        ) : (
          <p>
            No photograph is beside an entry of this test yet: take one with a check-in on Ride, or import
            files.
          </p>
        )}
      </div>
    </Page>
  );
}
