import { useCallback, useEffect, useRef, useState } from "react";
import {
  displayHealth,
  autoLog,
  autoLogFrom,
  startOf,
  UNWATCHED,
  watch,
  type DisplayHealth,
  type Logged,
  type DisplaySample,
  type Watched,
} from "#core/ride/display";
import type { Fault, Stand } from "#core/simulator";
import { standinDevice } from "./device";
import { fact, keepFact } from "./outbox";
import { closeLeftRows, sampleStore } from "./sampleStore";

export interface DeviceState {
  readonly shown: DisplaySample | null;
  readonly health: DisplayHealth;
  readonly sentence: string;
  readonly ended: boolean;
  readonly running: boolean;
  readonly clock: number;
  readonly fault: Fault;
  readonly writes: boolean;
}

interface DeviceOptions {
  readonly testId: string;
  readonly rideId: string;
  /** The ride's start by the device's clock, ms; null without a device. */
  readonly startMs: number | null;
  readonly stands: readonly Stand[];
  readonly firstClock: number;
  /** The log has a start. */
  readonly started: boolean;
  /** An entry the device's readings call for. */
  readonly onLogged: (logged: Logged) => void;
  /** Samples wait to be sent. */
  readonly onSamples: () => void;
}

const FINE: { health: DisplayHealth; sentence: string } = { health: "fine", sentence: "" };

/** The log that a display writes by itself, while it is asked to. */
function useAutoLog(
  writes: boolean,
  watched: { readonly current: Watched },
  told: { readonly current: DeviceOptions },
) {
  /** A start was written here already. */
  const begun = useRef(false);
  const own = useRef(autoLogFrom(null));
  const write = useRef(writes);
  useEffect(() => {
    if (writes && !write.current) own.current = autoLogFrom(watched.current.last);
    write.current = writes;
  }, [watched, writes]);
  const logRow = useCallback(
    (row: DisplaySample) => {
      if (!told.current.started && !begun.current) {
        begun.current = true;
        told.current.onLogged(startOf(row));
      }
      const next = autoLog(own.current, row);
      own.current = next.state;
      next.entries.forEach((entry) => told.current.onLogged(entry));
    },
    [told],
  );
  return { write, logRow };
}

/** Listens to a ride's display: what it shows now, how it does, and on demand a log that writes itself. */
export function useDevice(options: DeviceOptions) {
  const { testId, rideId, startMs, stands, firstClock } = options;
  const [running, setRunning] = useState(false);
  const [clock, setClock] = useState(firstClock);
  const [fault, setFault] = useState<Fault>("none");
  const [writes, setWrites] = useState(false);
  const [shown, setShown] = useState<DisplaySample | null>(null);
  const [doing, setDoing] = useState(FINE);
  const [ended, setEnded] = useState(false);
  /** Last second heard of, by the device's own clock since the start; null before a page has looked. */
  const atS = useRef<number | null>(null);
  const faultFromS = useRef(0);
  const watched = useRef<Watched>(UNWATCHED);
  const heardMs = useRef(0);
  const told = useRef(options);
  useEffect(() => {
    told.current = options;
  });
  const { write, logRow } = useAutoLog(writes, watched, told);
  const standsKey = JSON.stringify(stands);

  useEffect(() => {
    if (!running || startMs === null) return;
    let stop: (() => void) | null = null;
    let off = false;
    const store = sampleStore(testId, rideId, "stand-in", () => told.current.onSamples());
    const rows = (news: readonly DisplaySample[]) => {
      heardMs.current = Date.now();
      for (const row of news) {
        watched.current = watch(watched.current, row);
        atS.current = row.timeS - startMs / 1000;
        store.add(row, heardMs.current);
        if (write.current && displayHealth(watched.current, 0).health !== "frozen") logRow(row);
      }
      setShown(news.at(-1) ?? null);
      void keepFact(`device ${rideId}`, atS.current).catch(() => undefined);
    };
    const begin = async () => {
      if (atS.current === null) {
        const left = await closeLeftRows(testId, rideId).catch(() => null);
        const last = await fact<number>(`device ${rideId}`).catch(() => undefined);
        atS.current = Math.max(left === null ? -1 : left - startMs / 1000, last ?? -1);
      }
      if (off) return;
      heardMs.current = Date.now();
      const device = standinDevice(testId, {
        fromS: atS.current + 1,
        clock,
        fault,
        faultFromS: faultFromS.current,
        stands: JSON.parse(standsKey) as readonly Stand[],
      });
      stop = device.open({ rows, ended: () => setEnded(true) });
    };
    void begin();
    const look = setInterval(
      () => setDoing(displayHealth(watched.current, Date.now() - heardMs.current)),
      1000,
    );
    return () => {
      off = true;
      stop?.();
      clearInterval(look);
      void store.close();
    };
  }, [clock, fault, logRow, rideId, running, standsKey, startMs, testId, write]);

  const state: DeviceState = { shown, ...doing, ended, running, clock, fault, writes };
  return {
    state,
    run: setRunning,
    setClock,
    setFault: (next: Fault) => {
      faultFromS.current = Math.max(0, atS.current ?? 0);
      setFault(next);
    },
    setWrites,
  };
}
