import { useState } from "react";
import { data, href, Link, redirect } from "react-router";
import { dbContext } from "#app/context";
import { analysisOf } from "#app/services/analysis.server";
import { compute } from "#app/services/compute/pool.server";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { useWho } from "#app/ui/who";
import { findTest } from "#db/tests";
import { Page } from "#ui/page";
import { paint, saveClock, tieFilm } from "./clocks/act.server";
import { DeviceClock } from "./clocks/deviceClock";
import { FilmClock } from "./clocks/filmClock";
import { beganByTie, NO_TIE, type TypedTie } from "./clocks/filmTie";
import { Lanes } from "./clocks/lanes";
import { PaintForm, SteadyTable, WayTable } from "./clocks/way";
import { offsetTyped } from "./files/sent";
import { rideNamed, ridesOf } from "./recording.server";
import { RidesNav } from "./ridesNav";
import type { Route } from "./+types/clocks";

const GONE = "There is no such test.";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const { test, rides, rideId } = await ridesOf(db, params.testId, request);
  const ride = rides.find(({ id }) => id === rideId)!;
  const clocks = await compute(db, "clocks", { testId: test.id, rideId }, request.signal);
  const { result } = await analysisOf(db, test);
  return { test, ride, rides, clocks, steady: result?.ok ? result.value.steady : [] };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const form = await request.formData();
  const ride = await rideNamed(db, line.id, form.get("rideId"));
  const where = { testId: line.id, rideId: ride.id };
  if (form.get("intent") === "paint") {
    const lines = await paint(db, where, form, { first: line.test.firstGround, system: systemOf(request) });
    return lines.ok
      ? data<ClocksAnswer>({ of: "paint", done: lines.value, problem: null })
      : refused("paint", lines.problems[0]!.sentence);
  }
  if (form.get("intent") === "film") {
    const lines = await tieFilm(db, where, form, { day: line.test.day, zone: ride.zone });
    return lines.ok
      ? data<ClocksAnswer>({ of: "film", done: lines.value, problem: null })
      : refused("film", lines.problems[0]!.sentence);
  }
  const saved = await saveClock(db, where, form);
  if (!saved.ok) return refused(String(form.get("device")), saved.problems[0]!.sentence);
  return redirect(`${href("/strip/:testId/clocks", { testId: line.id })}?ride=${ride.id}`);
}

/** What came of a form: lines added to the log, or why not. */
interface ClocksAnswer {
  /** The device, the film, or the painting. */
  readonly of: string;
  readonly done: number;
  readonly problem: string | null;
}

const refused = (of: string, problem: string) =>
  data<ClocksAnswer>({ of, done: 0, problem }, { status: 400 });

type Loaded = Route.ComponentProps["loaderData"];

/** A text as it stands: what was typed since, else what is kept. */
const orKept = (typed: string | undefined, kept: number) => typed ?? (kept === 0 ? "" : String(kept));

/** The devices of a ride over each other, each with its clock; moved as it is typed, kept when it is saved. */
function RideClocks({
  test,
  ride,
  clocks,
  steady,
  answer,
}: Loaded & { readonly answer: ClocksAnswer | null }) {
  const { mayChange } = useWho();
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [tie, setTie] = useState<TypedTie>(NO_TIE);
  const { film, way, devices } = clocks;
  const tried = devices.map((device) => {
    const offset = offsetTyped(orKept(typed[device.id], device.offsetS));
    return { device, moreS: offset.ok ? offset.value - device.offsetS : 0 };
  });
  if (devices.length === 0 && !film)
    return (
      <p className="p-4 md:p-6">
        No recorder, no meter and no film is beside this ride yet: import their files, and their clocks are
        held against the log's.
      </p>
    );
  const began = film && (beganByTie(tie, test.test.day, ride.zone) ?? film.beganS);
  const spoken = film && began !== null ? film.saidS.map((filmS) => began + filmS) : [];
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-6 p-4 md:p-6">
      <Lanes noted={clocks.noted} tried={tried} spoken={spoken} zone={ride.zone} />
      {mayChange ? (
        <div className="grid gap-4 lg:grid-cols-2">
          {devices.map((device) => (
            <DeviceClock
              key={device.id}
              device={device}
              rideId={ride.id}
              offset={orKept(typed[device.id], device.offsetS)}
              onOffset={(offset) => setTyped((all) => ({ ...all, [device.id]: offset }))}
              problem={answer?.of === device.id ? answer.problem : null}
            />
          ))}
          {film ? (
            <FilmClock
              {...{ film, tie }}
              byTrack={clocks.filmBy}
              rideId={ride.id}
              zone={ride.zone}
              onTie={setTie}
              answer={answer?.of === "film" ? answer : null}
            />
          ) : null}
        </div>
      ) : null}
      {way ? (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-6 lg:grid-cols-2">
          <WayTable way={way} />
          <SteadyTable steady={steady} />
        </div>
      ) : null}
      {way && mayChange ? (
        <PaintForm rideId={ride.id} answer={answer?.of === "paint" ? answer : null} />
      ) : null}
    </div>
  );
}

/** Clocks of log, recorder, meter and film, tied by what they recorded. */
export default function ClocksPage({ loaderData, actionData }: Route.ComponentProps) {
  const { test, ride, rides } = loaderData;
  const key = `${ride.id}/${loaderData.clocks.devices.map(({ id, offsetS }) => `${id}${offsetS}`).join()}`;
  return (
    <Page
      title="Clocks and recordings"
      line={`${test.bikeName}, ${test.test.title}, ${ride.name}: the same ride by each device's clock. Bumps under bumps and stops under stops are right.`}
      next={
        <Link to={href("/strip/:testId", { testId: test.id })} className="button button-main">
          Back to the strip
        </Link>
      }
    >
      <RidesNav rides={rides} rideId={ride.id} />
      <RideClocks key={key} {...loaderData} answer={actionData ?? null} />
    </Page>
  );
}
