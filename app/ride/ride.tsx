import { useEffect, useMemo, useRef, useState } from "react";
import { Form, isRouteErrorResponse, Link, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { testSentence } from "#app/ui/testLine";
import {
  END_NAMES,
  ENDS,
  foldLog,
  READING_FIELDS,
  type EntryBody,
  type LiveEntry,
  type ReadingField,
} from "#core/log";
import { againstGuess, againstPlan, liveTurn, liveView, reasonsFor, reasonsText } from "#core/live";
import { momentOf, routeOf } from "#core/plan";
import { standsOf } from "#core/standin";
import { addRide, findTest } from "#db/tests";
import { Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { DuskSwitch } from "#ui/theme";
import { DevicePanel } from "./devicePanel";
import { HeldList } from "./heldList";
import { LastEntries } from "./lastEntries";
import { LineField } from "./lineField";
import { loadRide, type LoadedRide } from "./load.server";
import { Outlook } from "./outlook";
import { BarPanel, CheckInPanel, GroundPanel, LevelPanel, NotePanel } from "./panels";
import { entryText, heldIn, HELD, placesOf, riddenOf, stateOf } from "./state";
import { Standing } from "./standing";
import { Truth } from "./truth";
import { useAwake } from "./useAwake";
import { useDevice } from "./useDevice";
import { useLive } from "./useLive";
import { useOutbox } from "./useOutbox";
import { usePutBy } from "./usePutBy";
import { useRideKeys } from "./useRideKeys";
import type { Route } from "./+types/ride";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  return loadRide(context.get(dbContext), params.testId, new URL(request.url).searchParams.get("ride"));
}

/** What the page last had of each address, for when the server does not answer. */
const lastHad = new Map<string, LoadedRide>();

export async function clientLoader({ serverLoader, request }: Route.ClientLoaderArgs) {
  const { pathname, search } = new URL(request.url);
  try {
    return await serverLoader();
  } catch (error) {
    const last = lastHad.get(pathname + search);
    if (last && !(isRouteErrorResponse(error) && error.status === 404)) return last;
    throw error;
  }
}

/** Adds a ride on the same charge. */
export async function action({ params, context }: Route.ActionArgs) {
  const GONE = "There is no such test.";
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  await addRide(db, uuidv7(), line.id, "");
  return redirect(`/ride/${line.id}`);
}

const isReadingField = (field: string | null): field is ReadingField =>
  READING_FIELDS.some((known) => known === field);

/** Brings a panel that opens into view, above a phone's bar. */
const intoView = (panel: HTMLElement | null) => {
  panel?.querySelector<HTMLElement>("input, textarea")?.focus({ preventScroll: true });
  panel?.scrollIntoView({ block: "nearest" });
};

type Panel = "checkIn" | "level" | "ground" | "note" | "end" | "bar";

/** The log in the field: six large fields, the line, what is left, and the last entries. */
export default function RidePage({ loaderData, matches }: Route.ComponentProps) {
  const { line, rides, ride, bike, entries, plan, planId, rehearsal } = loaderData;
  const system = useSystem();
  const say = useSpoken();
  const address = matches.at(-1)!.pathname;
  useEffect(() => {
    lastHad.set(window.location.pathname + window.location.search, loaderData);
  }, [address, loaderData]);
  const outbox = useOutbox(line.id);
  usePutBy(line.id, planId, line.stamp);
  const [panel, setPanel] = useState<Panel | null>(null);
  const [text, setText] = useState("");
  const [correcting, setCorrecting] = useState<string | null>(null);
  const [lostBar, setLostBar] = useState<{ id: string; bar: number } | null>(null);
  const input = useRef<HTMLInputElement>(null);

  const held = new Set(entries.map(({ id }) => id));
  const own = outbox.log.filter(({ rideId }) => rideId === ride.id);
  const pending = own.filter(({ id }) => !held.has(id)).map(({ entry }) => entry);
  const log = [...entries, ...pending];
  const live = foldLog(log);
  const first = { level: line.test.firstLevel || bike.levels[0]!, ground: line.test.firstGround };
  const state = stateOf(live, bike, first, system);
  const setting = { levels: bike.levels, throttle: bike.throttle };
  const pendingKey = pending.map(({ id }) => id).join(" ");
  const edits = useMemo(
    () => pending.map((entry) => ({ ride: ride.place, entry })),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the ids stand for the entries, which never change
    [pendingKey, ride.place],
  );
  const results = useLive(`/strip/${line.id}/record`, line.stamp, loaderData.results, edits);
  const view = results && liveView(results, plan?.plan.reserve);
  const route = useMemo(() => (plan ? routeOf(plan) : null), [plan]);
  const ridden = useMemo(() => results && riddenOf(results, live), [results, live.length]); // eslint-disable-line react-hooks/exhaustive-deps -- results follow the log
  const planned = useMemo(() => {
    if (!route?.ok || !view || !results || !ridden) return null;
    const { forecast } = route.value;
    const against = againstPlan(forecast, view.distanceM, results.end.used);
    return {
      turn: liveTurn(forecast, view.distanceM, results.end.used),
      against,
      why: reasonsText(reasonsFor(forecast, ridden), against.more),
    };
  }, [route, view, results, ridden]);
  const guess =
    view && results
      ? againstGuess(live, (id) => placesOf(results).get(id), view.distanceM, view.toEnd)
      : null;

  const stands = rehearsal ? standsOf(live, rehearsal.startMs) : [];
  const device = useDevice({
    testId: line.id,
    rideId: ride.id,
    startMs: rehearsal?.startMs ?? null,
    stands,
    firstClock: rehearsal?.clock ?? 1,
    onLogged: ({ timeS, body }) => keepAt(body, new Date(timeS * 1000).toISOString(), 0),
    onSamples: () => void outbox.flush(),
  });
  const { shown } = device.state;
  useAwake(state.started && !state.ended);

  const keepAt = (
    body: EntryBody,
    at: string | null,
    clockOffsetS: number | undefined,
    supersedes: string | null = null,
  ) => {
    const lastSeq = log.reduce((most, entry) => Math.max(most, entry.seq), -1);
    return outbox.add(ride.id, lastSeq, {
      at,
      body,
      supersedes,
      ...(clockOffsetS !== undefined && { clockOffsetS }),
    });
  };
  /** Keeps an entry made now, by the display's clock while a rehearsal runs; a correction keeps its time unless told. */
  const keep = (body: EntryBody, clock: string | null = null, supersedes: string | null = null) => {
    setPanel(null);
    if (clock)
      return keepAt(
        body,
        new Date(momentOf(line.test.day, clock, ride.utcOffset)).toISOString(),
        0,
        supersedes,
      );
    if (body.kind === "strike" || body.kind === "restore" || supersedes !== null)
      return keepAt(body, null, undefined, supersedes);
    if (rehearsal)
      return keepAt(body, new Date(shown ? shown.timeS * 1000 : rehearsal.startMs).toISOString(), 0);
    return keepAt(body, new Date().toISOString(), undefined);
  };
  const loseBar = () => {
    if (state.nextBar === 0) return;
    const at = shown?.distanceM;
    const kept = keep({
      kind: "barLost",
      bar: state.nextBar,
      ...(at !== undefined && { distanceM: Math.round(at) }),
    });
    if (at !== undefined) return;
    setLostBar({ id: kept.id, bar: state.nextBar });
    setPanel("bar");
  };
  const stopOrGo = () => keep({ kind: state.standing ? "go" : "stop" });
  const toggle = (next: Panel) => setPanel(panel === next ? null : next);
  useRideKeys({
    c: () => setPanel("checkIn"),
    b: loseBar,
    s: stopOrGo,
    "/": () => input.current?.focus(),
    ...(bike.throttle && { t: () => keep({ kind: "checkIn", level: "throttle" }) }),
    ...Object.fromEntries(
      bike.levels.slice(0, 9).map((level, i) => [String(i + 1), () => keep({ kind: "checkIn", level })]),
    ),
  });

  const fields: readonly { name: string; now: string; act: () => void; open?: Panel; off?: boolean }[] = [
    { name: "Check-in", now: state.last["distanceM"] ?? "", act: () => toggle("checkIn"), open: "checkIn" },
    {
      name: "Bar lost",
      now: state.nextBar ? `bar ${state.nextBar} next` : "no bars",
      act: loseBar,
      off: state.nextBar === 0,
    },
    { name: "Level", now: state.level, act: () => toggle("level"), open: "level" },
    { name: "Ground", now: state.ground, act: () => toggle("ground"), open: "ground" },
    { name: state.standing ? "Go" : "Stop", now: state.standing ? "standing" : "riding", act: stopOrGo },
    { name: "Note", now: "", act: () => toggle("note"), open: "note" },
  ];
  const correct = (entry: LiveEntry) => {
    setText(entryText(entry, setting, system, true));
    setCorrecting(entry.id);
    input.current?.focus();
  };
  return (
    <Page
      title={rehearsal ? `Rehearsal: ${line.test.title}` : line.test.title}
      line={testSentence(
        line.test,
        { bike: line.bikeName, setUp: line.setUpName, rider: line.riderName },
        system,
      )}
      next={
        <Link to={`/strip/${line.id}`} className="button hidden md:inline-flex">
          Strip
        </Link>
      }
    >
      <div className="field-page mx-auto grid max-w-5xl grid-cols-[minmax(0,1fr)] items-start gap-4 p-4 text-ink lg:grid-cols-[minmax(0,1fr)_24rem]">
        <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
          {rehearsal?.debrief ? <Truth debrief={rehearsal.debrief} /> : null}
          {rehearsal && !state.ended ? (
            <DevicePanel
              state={device.state}
              onRun={device.run}
              onClock={device.setClock}
              onFault={device.setFault}
              onWrites={device.setWrites}
            />
          ) : null}
          <Outlook view={view} planned={planned} guess={guess} />
          <Standing
            shelf={outbox.shelf}
            away={outbox.away}
            offsetS={outbox.offsetS}
            kept={outbox.looked ? own : null}
          >
            <DuskSwitch className="button button-plain" />
          </Standing>
          {(results?.flags ?? []).map(({ rootId, field, sentence }) => (
            <div key={`${rootId} ${field}`} className="border-l-4 border-ochre-fill bg-sheet px-4 py-3">
              <p>{say(sentence)}</p>
              <button
                type="button"
                className="button mt-2"
                onClick={() =>
                  keep({ kind: "strike", target: rootId, ...(isReadingField(field) && { field }) })
                }
              >
                Set it aside
              </button>
            </div>
          ))}
          {state.started ? (
            <>
              <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
                {fields.map(({ name, now, act, open, off }) => (
                  <button
                    key={name}
                    type="button"
                    onClick={act}
                    disabled={off}
                    aria-expanded={open ? panel === open : undefined}
                    className={`sheet min-h-20 px-3 py-2 text-left ${panel === open && open ? "border-spruce" : ""}`}
                  >
                    <span className="block text-lg font-bold text-spruce">{name}</span>
                    <span className="block text-sm text-quiet">{now}</span>
                  </button>
                ))}
              </div>
              {panel ? (
                <div key={panel} ref={intoView} className="sheet scroll-mb-24 p-4 md:scroll-mb-4">
                  {panel === "checkIn" ? (
                    <CheckInPanel bike={bike} start={false} last={state.last} shown={shown} keep={keep} />
                  ) : null}
                  {panel === "level" ? <LevelPanel bike={bike} now={state.level} keep={keep} /> : null}
                  {panel === "ground" ? <GroundPanel now={state.ground} keep={keep} /> : null}
                  {panel === "note" ? <NotePanel keep={keep} /> : null}
                  {panel === "bar" && lostBar ? (
                    <BarPanel
                      bar={lostBar.bar}
                      last={state.last["distanceM"] ?? ""}
                      keep={(body) => keep(body, null, lostBar.id)}
                    />
                  ) : null}
                  {panel === "end" ? (
                    <div className="grid gap-2">
                      {(plan?.plan.method.ends ?? ENDS).map((end) => (
                        <button
                          key={end}
                          type="button"
                          className="button min-h-14 justify-start text-lg"
                          onClick={() => {
                            device.run(false);
                            keep({ kind: "end", reason: end });
                          }}
                        >
                          {END_NAMES[end]}
                        </button>
                      ))}
                    </div>
                  ) : null}
                </div>
              ) : null}
            </>
          ) : (
            <section className="sheet p-4">
              <h2 className="mb-2">Start readings</h2>
              <CheckInPanel bike={bike} start last={{}} shown={shown} keep={keep} />
              <p className="mt-3 text-sm text-quiet">
                Read and type only when stopped. Brakes checked, helmet on, a way home without the motor.
              </p>
            </section>
          )}
          <LineField
            setting={setting}
            input={input}
            text={text}
            onText={setText}
            correcting={correcting !== null}
            onKeep={(body, clock) => {
              keep(body, clock, correcting);
              setText("");
              setCorrecting(null);
            }}
          />
        </div>
        <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
          <HeldList
            lines={plan?.plan.method.hold ?? []}
            held={heldIn(live)}
            onHeld={(each) => keep({ kind: "note", note: `${HELD}${each}` })}
          />
          <section>
            <div className="flex flex-wrap items-center justify-between gap-2">
              <h2>{rides.length > 1 ? ride.name : "Last entries"}</h2>
              {state.started && !state.ended ? (
                <button type="button" className="button button-plain" onClick={() => toggle("end")}>
                  End the test
                </button>
              ) : null}
            </div>
            <LastEntries
              entries={state.newest}
              setting={setting}
              utcOffset={ride.utcOffset}
              device={outbox.device}
              kept={own}
              onCorrect={correct}
              onStrike={(entry) => keep({ kind: entry.struck ? "restore" : "strike", target: entry.rootId })}
            />
          </section>
          <section className="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
            <Link to={`/strip/${line.id}`} className="md:hidden">
              Strip of this test
            </Link>
            {rides.length > 1
              ? rides.map(({ id, name }) => (
                  <Link
                    key={id}
                    to={`/ride/${line.id}?ride=${id}`}
                    aria-current={id === ride.id ? "page" : undefined}
                    className={id === ride.id ? "font-bold" : ""}
                  >
                    {name}
                  </Link>
                ))
              : null}
            {state.started && !rehearsal ? (
              <Form method="post">
                <button type="submit" className="button button-plain">
                  Another ride on this charge
                </button>
              </Form>
            ) : null}
          </section>
        </div>
      </div>
    </Page>
  );
}
