import { useEffect, useRef, useState, type RefObject } from "react";
import { announce } from "#app/ui/announcer";
import { leftOut, momentAfter } from "#core/base";
import type { EntryBody, LiveEntry } from "#core/ride/log";
import { standsOf } from "#core/simulator";
import { useSystem } from "#ui/system";
import type { LoadedRide } from "./load.server";
import type { Panel } from "./sixFields";
import { entryText, savedSentence } from "./state";
import { isTypedLate, today } from "./typing";
import { useTyping } from "./typingNotice";
import { useDevice } from "./useDevice";
import type { Keeping, useLog } from "./useLog";
import { useRideKeys } from "./useRideKeys";

/** A moment that this browser's clock did not give: typed, or by a display. */
export const byOtherClock = (ms: number): Keeping => ({ at: new Date(ms).toISOString(), clockOffsetS: 0 });

type Log = Pick<ReturnType<typeof useLog>, "outbox" | "live" | "state" | "keepAt">;

/** A panel that closes takes the focus with it: the fields have it again, and their keys. */
function keepFocus(fields: RefObject<HTMLElement | null>): void {
  requestAnimationFrame(() => {
    if (document.activeElement === document.body) fields.current?.focus({ preventScroll: true });
  });
}

/** What was typed before the page was alive is there still. */
function useEarlyText(input: RefObject<HTMLInputElement | null>, setText: (text: string) => void): void {
  useEffect(() => {
    const early = input.current?.value ?? "";
    if (early) setText(early);
  }, [input, setText]);
}

/** How a ride's log is written: fields, keys and the line, now or by another clock, and corrections of what was written. */
export function useEntering(loaded: LoadedRide, { outbox, live, state, keepAt }: Log) {
  const { line, ride, bike, rehearsal } = loaded;
  const system = useSystem();
  const [panel, setPanel] = useState<Panel | null>(null);
  const [text, setText] = useState("");
  const [correcting, setCorrecting] = useState<string | null>(null);
  const [lostBar, setLostBar] = useState<{ id: string; bar: number } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const fields = useRef<HTMLDivElement>(null);
  useEarlyText(input, setText);
  const setting = { levels: bike.levels, throttle: bike.throttle };

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

  const behindS = outbox.offsetS ?? 0;
  const { typing, say } = useTyping(ride.id, line.test.day, ride.zone, behindS);
  const [asLate, setAsLate] = useState(false);
  const dayTyped = () => (typing === "riding" ? today(ride.zone, behindS) : line.test.day);
  const clockProblem = (clock: string) => leftOut(dayTyped(), clock, ride.zone);
  /** Keeps an entry made now, by the display's clock while a rehearsal runs; a correction keeps its time unless told. */
  const keep = (body: EntryBody, clock: string | null = null, supersedes: string | null = null) => {
    setPanel(null);
    announce(savedSentence(body, setting, system));
    keepFocus(fields);
    if (body.kind === "end") device.run(false);
    if (clock) {
      const timed = live.filter(({ timeS }) => timeS !== null);
      const lastMs = supersedes === null && timed.length ? timed.at(-1)!.timeS! * 1000 : null;
      return keepAt(body, { ...byOtherClock(momentAfter(dayTyped(), clock, ride.zone, lastMs)), supersedes });
    }
    if (body.kind === "strike" || body.kind === "restore" || supersedes !== null)
      return keepAt(body, { at: null, supersedes });
    if (rehearsal) return keepAt(body, byOtherClock(shown ? shown.timeS * 1000 : rehearsal.startMs));
    const late = typing === "notes" || isTypedLate(body, live, behindS);
    setAsLate(late && typing !== "notes");
    return keepAt(body, { at: late ? null : new Date().toISOString() });
  };
  /** The same with a photograph beside it. */
  const keepSeen = (body: EntryBody, photograph: File | null = null) => {
    const kept = keep(body);
    if (photograph) void outbox.addPhotograph(ride.id, kept, photograph);
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
  useRideKeys(fields, {
    Escape: () => {
      if (!panel) return;
      setPanel(null);
      fields.current?.querySelector<HTMLElement>('[aria-expanded="true"]')?.focus();
    },
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
  return {
    ...{
      fields,
      device,
      typing,
      say,
      asLate,
      clockProblem,
      keep,
      keepSeen,
      panel,
      setPanel,
      lostBar,
      loseBar,
      stopOrGo,
    },
    line: { input, text, setText, correcting, setCorrecting, correct },
  };
}
