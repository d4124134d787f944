import { Form, useNavigation } from "react-router";
import { clockSaid, spanSaid } from "../files/told";
import type { ClockedDevice } from "#app/services/recordings/clocks";

interface DeviceClockProps {
  readonly device: ClockedDevice;
  readonly rideId: string;
  /** As it is typed. */
  readonly offset: string;
  readonly onOffset: (offset: string) => void;
  readonly problem: string | null;
}

const STEPS = [-60, -1, 1, 60] as const;
const stepSaid = (step: number) => `${step > 0 ? "+" : "−"}${Math.abs(step) === 60 ? "1 min" : "1 s"}`;

/** One device's clock: what it is off, and what is added to it. */
export function DeviceClock({ device, rideId, offset, onOffset, problem }: DeviceClockProps) {
  const busy = useNavigation().state !== "idle";
  const { kind, id, name, clock, offsetS } = device;
  const whole = Math.round((offsetS + clock.proposedS) * 10) / 10;
  const number = Number(offset.replace(",", ".")) || 0;
  return (
    <Form
      method="post"
      preventScrollReset
      className="sheet grid content-start gap-3 p-4"
      aria-label={`Clock of ${name}`}
    >
      <input type="hidden" name="intent" value="clock" />
      <input type="hidden" name="rideId" value={rideId} />
      <input type="hidden" name="kind" value={kind} />
      <input type="hidden" name="device" value={id} />
      <h2 className="wrap-anywhere text-base font-bold">
        {kind === "track" ? "Recorder" : "Meter"}: {name || "unnamed"}
      </h2>
      <p>
        {offsetS === 0
          ? ""
          : `${spanSaid(offsetS)} ${offsetS > 0 ? "are added to" : "are taken off"} its times. `}
        {clockSaid(clock)}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <label className="grid text-sm font-medium">
          Add to its times
          <input
            name="offset"
            value={offset}
            placeholder="0 s"
            autoComplete="off"
            aria-invalid={problem ? true : undefined}
            className="input mt-1 max-w-32"
            onChange={(event) => onOffset(event.target.value)}
          />
        </label>
        {STEPS.map((step) => (
          <button
            key={step}
            type="button"
            className="button"
            onClick={() => onOffset(String(Math.round((number + step) * 10) / 10))}
          >
            {stepSaid(step)}
          </button>
        ))}
        {clock.proposedS === 0 ? null : (
          <button type="button" className="button" onClick={() => onOffset(String(whole))}>
            Take {spanSaid(whole)} {whole < 0 ? "off" : "more"}
          </button>
        )}
        <button className="button button-main" disabled={busy}>
          {busy ? "Working …" : "Save this clock"}
        </button>
      </div>
      {problem ? (
        <p role="alert" className="text-rust">
          {problem}
        </p>
      ) : null}
    </Form>
  );
}
