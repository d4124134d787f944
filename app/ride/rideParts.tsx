import { ENDS, type End } from "#core/fields";
import { DevicePanel } from "./devicePanel";
import { LastEntries } from "./lastEntries";
import { LineField } from "./lineField";
import type { LoadedRide } from "./load.server";
import { CheckInPanel } from "./panels";
import { SixFields } from "./sixFields";
import type { useEntering } from "./useEntering";
import type { useLog } from "./useLog";

type Entering = ReturnType<typeof useEntering>;
type State = ReturnType<typeof useLog>["state"];

/** How a ride may end: as its plan says, and always by choice. */
const endsOf = (plan: LoadedRide["plan"]): readonly End[] =>
  ENDS.filter((end) => end === "byChoice" || (plan?.plan.method.ends ?? ENDS).includes(end));

interface PartProps {
  readonly loaded: LoadedRide;
  readonly state: State;
  readonly entering: Entering;
}

/** The display that stands in for a bike's while a ride is practised. */
export function Rehearsing({ device }: Pick<Entering, "device">) {
  return (
    <DevicePanel
      state={device.state}
      onRun={device.run}
      onClock={device.setClock}
      onFault={device.setFault}
      onWrites={device.setWrites}
    />
  );
}

/** Said when an entry came too soon after the one before to have been ridden. */
export function LateNotice() {
  return (
    <p role="status" className="border-l-4 border-ochre-fill bg-sheet px-4 py-2">
      Kept without a time: nobody rides that far in the time since the entry before. Typed from notes? Type
      the time with it, such as 14:32.
    </p>
  );
}

/** What works where scripts do not. */
export function WithoutScript() {
  return (
    <noscript>
      <p className="border-l-4 border-ochre-fill bg-sheet px-4 py-2">
        Without script the start, check-ins and the line are logged by their buttons; the rest is typed on the
        line: “low”, “#gravel”, “lost bar 3”, “died”. What is left is on the strip.
      </p>
    </noscript>
  );
}

/** What is asked for: the six fields while it is ridden, the first readings before. */
export function RideFields({ loaded: { bike, plan }, state, entering }: PartProps) {
  const { device, panel, setPanel, lostBar, loseBar, stopOrGo, keep, keepSeen } = entering;
  const { shown } = device.state;
  if (state.started)
    return (
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
        keep={keepSeen}
        onBarDetails={(body) => keep(body, null, lostBar!.id)}
      />
    );
  return (
    <section className="sheet p-4">
      <h2 className="mb-2">Start readings</h2>
      <CheckInPanel bike={bike} start last={{}} shown={shown} keep={keepSeen} />
      <p className="mt-3 text-sm text-quiet">
        Read and type only when stopped. Brakes checked, helmet on, a way home without the motor.
      </p>
    </section>
  );
}

/** The line: everything of an entry in one row of words. */
export function TheLine({
  setting,
  entering,
}: {
  readonly setting: Parameters<typeof LineField>[0]["setting"];
  readonly entering: Entering;
}) {
  const { clockProblem, keep, line } = entering;
  const { input, text, setText, correcting, setCorrecting } = line;
  return (
    <LineField
      setting={setting}
      input={input}
      text={text}
      onText={setText}
      correcting={correcting !== null}
      clockProblem={clockProblem}
      onKeep={(body, clock) => {
        keep(body, clock, correcting);
        setText("");
        setCorrecting(null);
      }}
    />
  );
}

interface WrittenProps extends PartProps {
  /** The browser's own name among those that write to the log. */
  readonly device: string | null;
  readonly kept: Parameters<typeof LastEntries>[0]["kept"];
}

/** The last entries, and the end of the test. */
export function Written({ loaded: { rides, ride, bike }, state, entering, device, kept }: WrittenProps) {
  const { panel, setPanel, keep } = entering;
  const setting = { levels: bike.levels, throttle: bike.throttle };
  return (
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
        zone={ride.zone}
        device={device}
        kept={kept}
        onCorrect={entering.line.correct}
        onStrike={(entry) => keep({ kind: entry.struck ? "restore" : "strike", target: entry.rootId })}
      />
    </section>
  );
}
