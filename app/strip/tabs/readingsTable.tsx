import { memo, useState } from "react";
import { Form } from "react-router";
import { READING_FIELDS, type LiveEntry, type ReadingField } from "#core/ride/log";
import { clockText, dayAt, dayText, formatQuantity, unitOf, type Estimate } from "#core/base";
import { useSystem } from "#ui/system";
import type { StripResults } from "#app/services/strip/view";
import { EntryRow, type OnJudge } from "./entryRow";

interface RideLog {
  readonly id: string;
  readonly name: string;
  readonly zone: string;
  readonly log: readonly LiveEntry[];
  /** Of its entries. */
  readonly photographs: readonly { readonly id: string; readonly entryId: string }[];
}

interface TableProps {
  readonly ride: RideLog;
  readonly results: StripResults | null;
  readonly only: boolean;
  readonly onJudge: OnJudge;
}

const HEADING: Readonly<Record<ReadingField, string>> = {
  percent: "Percent",
  bars: "Bars",
  packVolts: "Volts",
  counterWh: "Counter, Wh",
  counterAh: "Counter, Ah",
};

/** The table's headings. */
function Headings({ fields }: { readonly fields: readonly ReadingField[] }) {
  const system = useSystem();
  return (
    <thead>
      <tr>
        <th scope="col" className="number">
          {unitOf("distance", system) === "mi" ? "Mile" : "Km"}
        </th>
        <th className="min-w-24" scope="col">
          Entry
        </th>
        {fields.map((field) => (
          <th key={field} scope="col" className="number">
            {HEADING[field]}
          </th>
        ))}
        <th className="number" scope="col">
          Left, %
        </th>
        <th className="number wrapped" scope="col">
          {unitOf("energyPerDistance", system)} since the mark before
        </th>
        <th className="min-w-36" scope="col">
          Level, ground, note
        </th>
        <th className="number wrapped" scope="col">
          Off by, times its error
        </th>
        <th className="number wrapped" scope="col">
          Best without it
        </th>
        <th scope="col">
          <span className="sr-only">Correct</span>
        </th>
      </tr>
    </thead>
  );
}

/** Two places nearer than this are one mark, m. */
const SAME_PLACE_M = 1;
/** Lines shown at once; a longer log is unfolded by a button. */
const SHOWN = 60;

/** The log of one ride as a table: press a reading to set it aside or restore it; correct a line and the old figure stays, struck. */
export const ReadingsTable = memo(function ReadingsTable({ ride, results, only, onJudge }: TableProps) {
  const system = useSystem();
  const farthest = new Map<string, { standing: number; without: Estimate | null; struck: boolean }>();
  for (const { rootId, standing, row, struck } of results?.readings ?? [])
    if (standing !== null && Math.abs(standing) >= Math.abs(farthest.get(rootId)?.standing ?? 0))
      farthest.set(rootId, { standing, without: row?.without ?? null, struck });
  const questioned = new Set(results?.flags.map(({ rootId }) => rootId));
  const used = (field: ReadingField) =>
    ride.log.some(
      ({ body }) => field in body && (body as Partial<Record<ReadingField, number>>)[field] !== undefined,
    );
  const fields = READING_FIELDS.filter(used);
  const leftAt = (metres: number) =>
    results?.curve.find(({ distanceM }) => Math.abs(distanceM - metres) < SAME_PLACE_M)?.left ?? null;
  const stretchTo = (metres: number) =>
    results?.stretches.find(({ toM }) => Math.abs(toM - metres) < SAME_PLACE_M)?.whPerM ?? null;
  const pictured = new Map(ride.photographs.map(({ id, entryId }) => [entryId, id]));
  const placeOf = ({ rootId }: LiveEntry) => results?.places[rootId];
  const [all, setAll] = useState(ride.log.length <= SHOWN);
  const lines = [...ride.log].sort(
    (a, b) => (placeOf(a)?.distanceM ?? Infinity) - (placeOf(b)?.distanceM ?? Infinity) || a.seq - b.seq,
  );
  if (ride.log.length === 0) return null;
  const firstS = ride.log.find(({ timeS }) => timeS !== null)?.timeS ?? null;
  const dayOf = (timeS: number) => dayAt(timeS * 1000, ride.zone);
  const clockOf = (timeS: number | null) =>
    timeS === null || firstS === null
      ? ""
      : `${clockText(timeS * 1000, ride.zone)}${dayOf(timeS) === dayOf(firstS) ? "" : `, ${dayText(dayOf(timeS))}`}`;
  return (
    <Form method="post" preventScrollReset>
      <input type="hidden" name="rideId" value={ride.id} />
      {only ? null : <h2 className="mb-1">{ride.name}</h2>}
      <div
        className="relative overflow-x-auto"
        tabIndex={0}
        role="region"
        aria-label={`Readings, ${ride.name}`}
      >
        <table className="table w-full min-w-2xl">
          <caption className="sr-only">
            Every entry of {ride.name} by its distance, with the energy left there, what stands off, and the
            figure without it.{" "}
            {results?.end.fullPower
              ? `Full power ends at ${formatQuantity(results.end.fullPower.distanceM, "distance", system)}.`
              : ""}
          </caption>
          <Headings fields={fields} />
          <tbody>
            {(all ? lines : lines.slice(0, SHOWN)).map((entry) => {
              const place = placeOf(entry);
              return (
                <EntryRow
                  key={entry.rootId}
                  entry={entry}
                  place={place}
                  left={place ? leftAt(place.distanceM) : null}
                  stretch={place ? stretchTo(place.distanceM) : null}
                  far={farthest.get(entry.rootId)}
                  photographId={pictured.get(entry.rootId) ?? pictured.get(entry.id) ?? null}
                  isQuestioned={questioned.has(entry.rootId)}
                  fields={fields}
                  clock={clockOf(entry.timeS)}
                  onJudge={onJudge}
                />
              );
            })}
          </tbody>
        </table>
      </div>
      {all ? null : (
        <button type="button" className="button mt-3" onClick={() => setAll(true)}>
          Show all {lines.length} lines
        </button>
      )}
    </Form>
  );
});
