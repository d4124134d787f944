import { useEffect, useRef, useState } from "react";
import { isRouteErrorResponse, Link, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { testSentence } from "#app/ui/testLine";
import { ENDS, type End } from "#core/fields";
import { type EntryBody, type LiveEntry } from "#core/ride/log";
import { momentOf } from "#core/planning";
import { standsOf } from "#core/simulator";
import { addRide, findTest } from "#db/tests";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { DuskSwitch } from "#ui/theme";
import { DevicePanel } from "./devicePanel";
import { HeldList } from "./heldList";
import { LastEntries } from "./lastEntries";
import { LineField } from "./lineField";
import { loadRide, type LoadedRide } from "./load.server";
import { NotTaken } from "./notTaken";
import { Outlook } from "./outlook";
import { CheckInPanel } from "./panels";
import { Questions } from "./questions";
import { RideLinks } from "./rideLinks";
import { SixFields, type Panel } from "./sixFields";
import { Standing } from "./standing";
import { entryText, heldIn, HELD, TURN_RULE } from "./state";
import { TurnRuleField } from "./turnRuleField";
import { Truth } from "./truth";
import { isTypedLate, today } from "./typing";
import { TypingNotice, useTyping } from "./typingNotice";
import { useWakeLock } from "./useWakeLock";
import { useDevice } from "./useDevice";
import { useJudged } from "./useJudged";
import { useLog, type Keeping } from "./useLog";
import { useOfflinePrefetch } from "./useOfflinePrefetch";
import { holdPress } from "./useSteady";
import { useRideKeys } from "./useRideKeys";
import type { Route } from "./+types/ride";

/** A moment that this browser's clock did not give: typed, or by a display. */
const byOtherClock = (ms: number): Keeping => ({ at: new Date(ms).toISOString(), clockOffsetS: 0 });

export async function loader({ request, params, context }: Route.LoaderArgs) {
  return loadRide(context.get(dbContext), params.testId, new URL(request.url).searchParams.get("ride"));
}

/** How a ride may end: as its plan says, and always by choice. */
const endsOf = (plan: LoadedRide["plan"]): readonly End[] =>
  ENDS.filter((end) => end === "byChoice" || (plan?.plan.method.ends ?? ENDS).includes(end));

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

/** The log in the field: six large fields, the line, what is left, and the last entries. */
export default function RidePage({ loaderData, matches }: Route.ComponentProps) {
  const { line, rides, ride, bike, plan, planId, rehearsal } = loaderData;
  const system = useSystem();
  const address = matches.at(-1)!.pathname;
  useEffect(() => {
    lastHad.set(window.location.pathname + window.location.search, loaderData);
  }, [address, loaderData]);
  const leaving = useOfflinePrefetch(line.id, planId, line.stamp);
  const { outbox, own, live, state, results, keepAt } = useLog(loaderData);
  const { view, planned, guess, odd, flags, ruleText, watched } = useJudged(results, live, plan);
  const [panel, setPanel] = useState<Panel | null>(null);
  const [text, setText] = useState("");
  const [correcting, setCorrecting] = useState<string | null>(null);
  const [lostBar, setLostBar] = useState<{ id: string; bar: number } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const setting = { levels: bike.levels, throttle: bike.throttle };
  useWakeLock(state.started && !state.ended);

  const device = useDevice({
    testId: line.id,
    rideId: ride.id,
    startMs: rehearsal?.startMs ?? null,
    stands: rehearsal ? standsOf(live, rehearsal.startMs) : [],
    firstClock: rehearsal?.clock ?? 1,
    started: state.started,
    onLogged: ({ timeS, body }) => keepAt(body, byOtherClock(timeS * 1000)),
    onSamples: () => void outbox.flush(),
  });
  const { shown } = device.state;

  const { typing, say } = useTyping(ride.id, line.test.day, ride.utcOffset);
  const [asLate, setAsLate] = useState(false);
  /** Keeps an entry made now, by the display's clock while a rehearsal runs; a correction keeps its time unless told. */
  const keep = (body: EntryBody, clock: string | null = null, supersedes: string | null = null) => {
    setPanel(null);
    if (body.kind === "end") device.run(false);
    if (clock) {
      const day = typing === "riding" ? today(ride.utcOffset) : line.test.day;
      return keepAt(body, { ...byOtherClock(momentOf(day, clock, ride.utcOffset)), supersedes });
    }
    if (body.kind === "strike" || body.kind === "restore" || supersedes !== null)
      return keepAt(body, { at: null, supersedes });
    if (rehearsal) return keepAt(body, byOtherClock(shown ? shown.timeS * 1000 : rehearsal.startMs));
    const late = typing === "notes" || isTypedLate(body, live, outbox.offsetS ?? 0);
    setAsLate(late && typing !== "notes");
    return keepAt(body, { at: late ? null : new Date().toISOString() });
  };
  const loseBar = () => {
    if (state.nextBar === 0) return;
    const bar = state.nextBar;
    const at = shown?.distanceM;
    const kept = keep({ kind: "barLost", bar, ...(at !== undefined && { distanceM: Math.round(at) }) });
    if (at !== undefined) return;
    setLostBar({ id: kept.id, bar });
    setPanel("bar");
  };
  const stopOrGo = () => keep({ kind: state.standing ? "go" : "stop" });
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
      <div
        className="field-page mx-auto grid max-w-5xl grid-cols-[minmax(0,1fr)] items-start gap-4 p-4 text-ink lg:grid-cols-[minmax(0,1fr)_24rem]"
        onPointerDownCapture={holdPress}
      >
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
          <Outlook view={view} planned={planned} guess={guess}>
            {state.started && !state.ended ? (
              <TurnRuleField
                key={ruleText}
                text={ruleText}
                watched={watched}
                onRule={(rule) => keep({ kind: "note", note: `${TURN_RULE}${rule}` })}
              />
            ) : null}
          </Outlook>
          <Standing
            shelf={outbox.shelf}
            trouble={outbox.trouble}
            leaving={leaving}
            offsetS={outbox.offsetS}
            kept={outbox.looked ? own : null}
          >
            <DuskSwitch className="button button-plain" />
          </Standing>
          <NotTaken kept={own} setting={bike} onAgain={(id) => void outbox.sendAgain(id)} />
          {typing && !rehearsal ? <TypingNotice day={line.test.day} typing={typing} onSay={say} /> : null}
          {asLate ? (
            <p role="status" className="border-l-4 border-ochre-fill bg-sheet px-4 py-2">
              Kept without a time: nobody rides that far in the time since the entry before. Typed from notes?
              Type the time with it, such as 14:32.
            </p>
          ) : null}
          <Questions
            odd={odd}
            flags={flags}
            onAnswer={({ body, atS }) => (atS === null ? keep(body) : keepAt(body, byOtherClock(atS * 1000)))}
          />
          {state.started ? (
            <SixFields
              bike={bike}
              state={state}
              shown={shown}
              ends={endsOf(plan)}
              panel={panel}
              onPanel={setPanel}
              lostBar={lostBar}
              onLoseBar={loseBar}
              onStopOrGo={stopOrGo}
              keep={keep}
              onBarDetails={(body) => keep(body, null, lostBar!.id)}
            />
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
                <button
                  type="button"
                  className="button button-plain"
                  onClick={() => setPanel(panel === "end" ? null : "end")}
                >
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
          <RideLinks testId={line.id} rides={rides} rideId={ride.id} more={state.started && !rehearsal} />
        </div>
      </div>
    </Page>
  );
}
