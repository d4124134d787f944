import { fixed, formatQuantity } from "#core/base";
import { FAULTS, type Fault } from "#core/simulator";
import { useSystem } from "#ui/system";
import type { DeviceState } from "./useDevice";

/** Ride seconds to a second. */
const CLOCKS = [1, 5, 10, 20, 60, 600] as const;

interface DevicePanelProps {
  readonly state: DeviceState;
  readonly onRun: (running: boolean) => void;
  readonly onClock: (clock: number) => void;
  readonly onFault: (fault: Fault) => void;
  readonly onWrites: (writes: boolean) => void;
}

/** What it shows. */
function ShownFigures({ shown }: { readonly shown: NonNullable<DevicePanelProps["state"]["shown"]> }) {
  const system = useSystem();
  const figures: readonly (readonly [string, string | null])[] = [
    [
      "recorder",
      shown.distanceM === undefined ? null : formatQuantity(shown.distanceM, "distance", system, 2),
    ],
    ["display", shown.displayM === undefined ? null : formatQuantity(shown.displayM, "distance", system, 1)],
    ["speed", shown.speedMps === undefined ? null : formatQuantity(shown.speedMps, "speed", system, 1)],
    ["charge", shown.percent === undefined ? null : `${shown.percent} %`],
    ["bars", shown.bars === undefined ? null : String(shown.bars)],
    ["volts", shown.volts === undefined ? null : `${fixed(shown.volts, 1)} V`],
    ["amps", shown.amps === undefined ? null : `${fixed(shown.amps, 1)} A`],
    ["level", shown.level ?? null],
    [
      "its guess",
      shown.rangeGuessM === undefined ? null : formatQuantity(shown.rangeGuessM, "distance", system, 0),
    ],
  ];
  return (
    <dl className="grid grid-cols-3 gap-x-3 gap-y-1">
      {figures.map(([name, text]) =>
        text === null ? null : (
          <div key={name}>
            <dt className="text-sm text-quiet">{name}</dt>
            <dd className="text-lg font-bold">{text}</dd>
          </div>
        ),
      )}
    </dl>
  );
}

/** Whether it logs by itself, and what is wrong with it. */
function Faults({
  state,
  onWrites,
  onFault,
}: {
  readonly state: DevicePanelProps["state"];
  readonly onWrites: DevicePanelProps["onWrites"];
  readonly onFault: DevicePanelProps["onFault"];
}) {
  const { writes, fault } = state;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2 text-sm">
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-6 accent-spruce"
          checked={writes}
          onChange={(event) => onWrites(event.target.checked)}
        />
        The display logs by itself
      </label>
      <label className="flex items-center gap-2">
        Wrong with it
        <select
          className="input w-auto"
          value={fault}
          onChange={(event) => onFault(event.target.value as Fault)}
        >
          {(Object.keys(FAULTS) as Fault[]).map((each) => (
            <option key={each} value={each}>
              {each === "none" ? "nothing" : each}
            </option>
          ))}
        </select>
      </label>
    </div>
  );
}

/** The handlebar display: what it shows, how fast its clock runs, and what is wrong with it. */
export function DevicePanel({ state, onRun, onClock, onFault, onWrites }: DevicePanelProps) {
  const { shown, running, clock, health, sentence, ended } = state;
  return (
    <section aria-label="Display" className="sheet grid gap-3 p-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="mr-auto">Stand-in display</h2>
        <label className="flex items-center gap-2 text-sm">
          Clock
          <select
            className="input w-auto"
            value={clock}
            onChange={(event) => onClock(Number(event.target.value))}
          >
            {[...new Set([...CLOCKS, clock])]
              .sort((a, b) => a - b)
              .map((each) => (
                <option key={each} value={each}>
                  {each}x
                </option>
              ))}
          </select>
        </label>
        <button
          type="button"
          className={`button ${running ? "" : "button-main"}`}
          onClick={() => onRun(!running)}
        >
          {running ? "Hold" : shown ? "Ride on" : "Ride off"}
        </button>
      </div>
      {shown ? (
        <ShownFigures shown={shown} />
      ) : (
        <p className="text-quiet">
          A made-up bike rides this plan. Ride off, log what the display shows, and see at the end how your
          figure stands against the truth.
        </p>
      )}
      {running && health !== "fine" ? (
        <p role="status" className={health === "odd" ? "text-ochre" : "text-rust"}>
          {sentence}
        </p>
      ) : null}
      {ended ? <p role="status">The display is off. End the test to see the truth.</p> : null}
      <Faults state={state} onWrites={onWrites} onFault={onFault} />
    </section>
  );
}
