import { Form } from "react-router";
import type { LoggerImport } from "#db/telemetry";

interface LoggersProps {
  readonly ride: {
    readonly id: string;
    readonly name: string;
    readonly loggers: readonly LoggerImport[];
  };
  /** The test's only ride: it need not be named. */
  readonly only: boolean;
}

/** What loggers gave of a ride, where there is a choice: one of them counts, and a replaced file can be brought back. */
export function Loggers({ ride, only }: LoggersProps) {
  if (ride.loggers.length < 2) return null;
  return (
    <section className="sheet p-4" aria-label={`Loggers of ${ride.name}`}>
      <h3 className="font-bold">{only ? "Loggers" : `Loggers of ${ride.name}`}</h3>
      <ul>
        {ride.loggers.map(({ id, logger, samples, counts, replaced }) => (
          <li
            key={id}
            className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2"
          >
            <span>
              {logger}, {samples.toLocaleString("en")} samples
              {counts ? ", counts" : replaced ? ", replaced by a later file" : ""}
            </span>
            {counts ? null : (
              <Form method="post">
                <input type="hidden" name="rideId" value={ride.id} />
                <input type="hidden" name="import" value={id} />
                <button
                  name="intent"
                  value="countLogger"
                  className="button button-plain"
                  aria-label={`Let ${logger}, ${samples} samples, count`}
                >
                  {replaced ? "Bring back" : "Let it count"}
                </button>
              </Form>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
