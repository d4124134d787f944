import { displaySamplesSchema, type DisplaySample } from "#core/ride/display";
import type { Fault, Stand } from "#core/simulator";

/** Who is told what a device shows. */
export interface DeviceListener {
  readonly rows: (rows: readonly DisplaySample[]) => void;
  /** It has nothing more to show. */
  readonly ended: () => void;
}

/** A display or meter that tells what it shows: the stand-in, or one over a cable or radio. */
export interface Device {
  /** The name its samples are kept under. */
  readonly name: string;
  /** Begins to listen; the result ends it. */
  open(listener: DeviceListener): () => void;
}

export interface StandinSettings {
  readonly fromS: number;
  /** Ride seconds to a second. */
  readonly clock: number;
  readonly fault: Fault;
  readonly faultFromS: number;
  readonly stands: readonly Stand[];
}

const standsText = (stands: readonly Stand[]) =>
  stands.map(({ fromS, toS }) => `${Math.round(fromS)}-${toS === null ? "" : Math.round(toS)}`).join(",");

/** The stand-in display of a rehearsal, over server-sent events. */
export function standinDevice(testId: string, settings: StandinSettings): Device {
  const { fromS, clock, fault, faultFromS, stands } = settings;
  const asked = new URLSearchParams({
    from: String(Math.max(0, Math.round(fromS))),
    clock: String(clock),
    fault,
    faultFrom: String(Math.round(faultFromS)),
    stands: standsText(stands),
  });
  return {
    name: "stand-in",
    open(listener) {
      const source = new EventSource(`/ride/${testId}/display?${asked}`);
      source.onmessage = ({ data }: MessageEvent<string>) => {
        const rows = displaySamplesSchema.safeParse(JSON.parse(data));
        if (rows.success) listener.rows(rows.data);
      };
      source.addEventListener("end", () => {
        source.close();
        listener.ended();
      });
      return () => source.close();
    },
  };
}
