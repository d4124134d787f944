import { useEffect, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { loadDesk, planRecord } from "#app/planning.server";
import { resultsOf } from "#app/reckoning.server";
import { found, idOf } from "#app/ui/require.server";
import { testSentence } from "#app/ui/testLine";
import {
  END_NAMES,
  ENDS,
  READING_FIELDS,
  type End,
  type Entry,
  type EntryBody,
  type ReadingField,
} from "#core/log";
import { againstPlan, liveTurn, liveView } from "#core/live";
import { momentOf, routeOf } from "#core/plan";
import { listEntries } from "#db/log";
import { listPlans } from "#db/plans";
import { findTest, listRides } from "#db/tests";
import { Page } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { LineField } from "./lineField";
import { Outlook } from "./outlook";
import { CheckInPanel, GroundPanel, LevelPanel, NotePanel } from "./panels";
import { entryText, stateOf } from "./state";
import { useLive } from "./useLive";
import { useOutbox } from "./useOutbox";
import type { Route } from "./+types/ride";

const GONE = "There is no such test.";

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const rides = await listRides(db, line.id);
  const ride = found(rides.at(-1), "This test has no ride yet.");
  const [entries, results, desk, plans] = await Promise.all([
    listEntries(db, ride.id),
    resultsOf(db, [line]),
    loadDesk(db, line.bikeId),
    listPlans(db),
  ]);
  const { bike } = found(desk, GONE);
  const plan = plans.find(({ testId }) => testId === line.id);
  const result = results.get(line.id);
  return {
    line,
    ride: { id: ride.id, name: ride.name, utcOffset: ride.utcOffset, place: rides.length - 1 },
    bike,
    entries,
    results: result?.ok ? result.value : null,
    plan: plan && desk ? await planRecord(db, plan, desk) : null,
  };
}

const isReadingField = (field: string | null): field is ReadingField =>
  READING_FIELDS.some((known) => known === field);

type Panel = "checkIn" | "level" | "ground" | "note" | "end";

/** The log in the field: six large fields, the line, what is left, and the last entries. */
export default function RidePage({ loaderData }: Route.ComponentProps) {
  const { line, ride, bike, entries, plan } = loaderData;
  const system = useSystem();
  const say = useSpoken();
  const outbox = useOutbox(line.id);
  const [panel, setPanel] = useState<Panel | null>(null);
  const [text, setText] = useState("");
  const [correcting, setCorrecting] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);

  const mine = outbox.waiting.filter(({ rideId }) => rideId === ride.id);
  const held = new Set(entries.map(({ id }) => id));
  const pending = [...outbox.sent, ...mine]
    .filter(({ rideId, id }) => rideId === ride.id && !held.has(id))
    .map(({ entry }) => entry);
  const log = [...entries, ...pending];
  const first = { level: line.test.firstLevel || bike.levels[0]!, ground: line.test.firstGround };
  const state = stateOf(log, bike, first, system);
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
  const planned = useMemo(() => {
    if (!route?.ok || !view || !results) return null;
    const { forecast } = route.value;
    return {
      turn: liveTurn(forecast, view.distanceM, results.end.used),
      against: againstPlan(forecast, view.distanceM, results.end.used),
    };
  }, [route, view, results]);

  const keep = (body: EntryBody, clock: string | null = null, supersedes: string | null = null) => {
    const seq = log.reduce((most, entry) => Math.max(most, entry.seq), -1) + 1;
    const at = clock
      ? new Date(momentOf(line.test.day, clock, ride.utcOffset)).toISOString()
      : body.kind === "strike" || body.kind === "restore"
        ? null
        : new Date().toISOString();
    const entry: Entry = { id: uuidv7(), seq, at, body, supersedes };
    outbox.add({ id: entry.id, testId: line.id, rideId: ride.id, entry });
    setPanel(null);
  };
  const loseBar = () => {
    if (state.nextBar > 0) keep({ kind: "barLost", bar: state.nextBar });
  };
  const toggle = (next: Panel) => setPanel(panel === next ? null : next);

  const keys = useRef<Readonly<Record<string, () => void>>>({});
  useEffect(() => {
    keys.current = {
      c: () => setPanel("checkIn"),
      b: loseBar,
      s: () => keep({ kind: state.standing ? "go" : "stop" }),
      "/": () => input.current?.focus(),
      ...(bike.throttle && { t: () => keep({ kind: "checkIn", level: "throttle" }) }),
      ...Object.fromEntries(
        bike.levels.slice(0, 9).map((level, i) => [String(i + 1), () => keep({ kind: "checkIn", level })]),
      ),
    };
  });
  useEffect(() => {
    let leader = false;
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      const act = leader ? undefined : keys.current[event.key];
      leader = event.key === "g";
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);

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
    {
      name: state.standing ? "Go" : "Stop",
      now: state.standing ? "standing" : "riding",
      act: () => keep({ kind: state.standing ? "go" : "stop" }),
    },
    { name: "Note", now: "", act: () => toggle("note"), open: "note" },
  ];
  const ends: readonly End[] = plan?.plan.method.ends ?? ENDS;
  return (
    <Page
      title={line.test.title}
      line={testSentence(
        line.test,
        { bike: line.bikeName, setUp: line.setUpName, rider: line.riderName },
        system,
      )}
      next={
        <Link to={`/strip/${line.id}`} className="button">
          Strip
        </Link>
      }
    >
      <div className="mx-auto grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-4 p-4">
        {outbox.homeless ? (
          <p role="alert" className="border-l-4 border-rust bg-sheet px-4 py-3">
            This browser keeps nothing: entries that are not sent are lost when the page is closed. Allow
            storage, or use another browser, before you ride.
          </p>
        ) : null}
        <Outlook view={view} planned={planned} />
        {(results?.flags ?? []).map(({ rootId, field, sentence }) => (
          <div key={`${rootId} ${field}`} className="border-l-4 border-ochre-fill bg-sheet px-4 py-3">
            <p>{say(sentence)}</p>
            <button
              type="button"
              className="button mt-2"
              onClick={() =>
                keep({
                  kind: "strike",
                  target: rootId,
                  ...(isReadingField(field) && { field }),
                })
              }
            >
              Set it aside
            </button>
          </div>
        ))}
        <p role="status" className="text-sm text-quiet">
          {mine.length === 0
            ? "Every entry is kept."
            : mine.length === 1
              ? "One entry waits to be sent."
              : `${mine.length} entries wait to be sent.`}{" "}
          {outbox.refused ?? ""}
        </p>
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
              <div className="sheet p-4">
                {panel === "checkIn" ? (
                  <CheckInPanel bike={bike} start={false} last={state.last} keep={keep} />
                ) : null}
                {panel === "level" ? <LevelPanel bike={bike} now={state.level} keep={keep} /> : null}
                {panel === "ground" ? <GroundPanel now={state.ground} keep={keep} /> : null}
                {panel === "note" ? <NotePanel keep={keep} /> : null}
                {panel === "end" ? (
                  <div className="grid gap-2">
                    {ends.map((end) => (
                      <button
                        key={end}
                        type="button"
                        className="button min-h-14 justify-start text-lg"
                        onClick={() => keep({ kind: "end", reason: end })}
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
            <CheckInPanel bike={bike} start last={{}} keep={keep} />
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
        <section>
          <div className="flex items-center justify-between">
            <h2>Last entries</h2>
            {state.started && !state.ended ? (
              <button type="button" className="button button-plain" onClick={() => toggle("end")}>
                End the test
              </button>
            ) : null}
          </div>
          <ul aria-label="Last entries">
            {state.newest.slice(0, 12).map((entry) => {
              const words = entryText(entry, setting, system);
              return (
                <li key={entry.rootId} className="flex items-center gap-2 border-b border-rule py-1">
                  <span
                    className={`min-w-0 flex-1 font-mono text-sm ${entry.struck ? "text-quiet line-through" : ""}`}
                  >
                    {words}
                  </span>
                  {entry.struck ? null : (
                    <button
                      type="button"
                      className="button button-plain"
                      aria-label={`Correct ${words}`}
                      onClick={() => {
                        setText(words);
                        setCorrecting(entry.id);
                        input.current?.focus();
                      }}
                    >
                      Correct
                    </button>
                  )}
                  <button
                    type="button"
                    className="button button-plain"
                    aria-label={`${entry.struck ? "Restore" : "Strike"} ${words}`}
                    onClick={() => keep({ kind: entry.struck ? "restore" : "strike", target: entry.rootId })}
                  >
                    {entry.struck ? "Restore" : "Strike"}
                  </button>
                </li>
              );
            })}
          </ul>
        </section>
      </div>
    </Page>
  );
}
