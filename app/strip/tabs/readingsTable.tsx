import { memo, useState } from "react";
import { Form, Link } from "react-router";
import { END_NAMES } from "#core/fields";
import { READING_FIELDS, type LiveEntry, type ReadingField, type StrikeField } from "#core/ride/log";
import {
  fixed,
  forField,
  formatBare,
  formatQuantity,
  halfWidth95,
  unitOf,
  writeUncertain,
  type Estimate,
  type System,
} from "#core/base";
import { useSystem } from "#ui/system";
import { Figure } from "#ui/figure";
import type { StripResults } from "#app/services/strip/view";

interface RideLog {
  readonly id: string;
  readonly name: string;
  readonly log: readonly LiveEntry[];
}

interface TableProps {
  readonly ride: RideLog;
  readonly results: StripResults | null;
  readonly only: boolean;
  /** Sets a reading aside or restores it; without script the form does it. */
  readonly onJudge: (judgement: Judgement) => void;
}

export interface Judgement {
  readonly kind: "strike" | "restore";
  readonly target: string;
  readonly field: StrikeField | null;
}

/** What an entry is, in words. */
function kindText({ body }: LiveEntry): string {
  switch (body.kind) {
    case "start":
      return body.chargerDone ? "start, charger done" : "start";
    case "checkIn":
      return "check-in";
    case "barLost":
      return `bar ${body.bar} lost`;
    case "lastBar":
      return "last bar blinking";
    case "lowPower":
      return "low-power mode";
    case "fullPowerEnd":
      return "full power ended, by hand";
    case "refill":
      return `${body.toFull ? "charged to full" : "charged"}${body.wallWh === undefined ? "" : `, ${body.wallWh} Wh at the wall`}`;
    case "end":
      return `end: ${END_NAMES[body.reason]}`;
    default:
      return body.kind;
  }
}

const UNITS: Readonly<Record<ReadingField, string>> = {
  percent: "%",
  bars: "bars",
  packVolts: "V",
  counterWh: "Wh",
  counterAh: "Ah",
};

const HEADING: Readonly<Record<ReadingField, string>> = {
  percent: "Percent",
  bars: "Bars",
  packVolts: "Volts",
  counterWh: "Counter, Wh",
  counterAh: "Counter, Ah",
};

/** One reading as a button: struck through when set aside, never removed. */
function Reading({
  entry,
  field,
  at,
  onJudge,
}: {
  readonly entry: LiveEntry;
  /** Where it was read, in words: rows are told apart by it. */
  readonly at: string;
  readonly field: ReadingField;
  readonly onJudge: TableProps["onJudge"];
}) {
  const value = (entry.body as Partial<Record<ReadingField, number>>)[field];
  if (value === undefined) return null;
  const before = entry.was
    .map((body) => (body as Partial<Record<ReadingField, number>>)[field])
    .filter((old) => old !== undefined && old !== value);
  const struck = entry.struck || entry.struckFields.includes(field);
  const loaded = field === "packVolts" && "underLoad" in entry.body && entry.body.underLoad;
  return (
    <>
      {before.map((old) => (
        <s key={old} className="mr-1 text-quiet">
          {old === undefined ? null : forField(old)}
        </s>
      ))}
      <button
        name="judge"
        value={`${struck ? "restore" : "strike"}/${entry.rootId}/${field}`}
        onClick={(event) => {
          event.preventDefault();
          onJudge({ kind: struck ? "restore" : "strike", target: entry.rootId, field });
        }}
        aria-label={`${struck ? "Restore" : "Set aside"} ${forField(value)} ${UNITS[field]}${at}`}
        title={struck ? "Set aside: press to restore" : "Press to set aside"}
        className={`carries-figure min-h-8 min-w-10 cursor-pointer rounded-sheet px-1 text-right hover:bg-hover ${struck ? "pencil line-through" : ""}`}
      >
        {forField(value)}
        {loaded ? <span className="text-sm text-quiet"> load</span> : null}
      </button>
    </>
  );
}

/** The table's headings. */
function Headings({ fields }: { readonly fields: readonly ReadingField[] }) {
  const system = useSystem();
  return (
    <thead>
      <tr>
        <th scope="col" className="number">
          {unitOf("distance", system) === "mi" ? "Mile" : "Km"}
        </th>
        <th scope="col">Entry</th>
        {fields.map((field) => (
          <th key={field} scope="col" className="number">
            {HEADING[field]}
          </th>
        ))}
        <th className="number" scope="col">
          Left, %
        </th>
        <th className="number" scope="col">
          {unitOf("energyPerDistance", system)} since the mark before
        </th>
        <th scope="col">Level, ground, note</th>
        <th className="number" scope="col">
          Off by, times its error
        </th>
        <th className="number" scope="col">
          Best without it
        </th>
        <th scope="col">
          <span className="sr-only">Correct</span>
        </th>
      </tr>
    </thead>
  );
}

/** Energy per distance with its plus-or-minus, under a heading that names the unit. */
function bareUncertain(whPerM: Estimate, system: System): string {
  const { value, error } = writeUncertain(whPerM, "energyPerDistance", system);
  return `${value} ± ${error}`;
}

/** What else an entry says: level, ground, note. */
function aboutText({ body }: LiveEntry): string {
  return [
    "level" in body ? body.level : "",
    "ground" in body ? body.ground : "",
    "note" in body && body.note ? `“${body.note}”` : "",
  ]
    .filter(Boolean)
    .join(", ");
}

interface EntryRowProps extends Pick<TableProps, "onJudge"> {
  readonly entry: LiveEntry;
  readonly place: StripResults["places"][string] | undefined;
  /** Share of the energy left there. */
  readonly left: Estimate | null;
  /** Energy per distance since the mark before. */
  readonly stretch: Estimate | null;
  /** Its reading that stands farthest off, and the figure without it. */
  readonly far: { readonly standing: number; readonly without: Estimate | null } | undefined;
  readonly isQuestioned: boolean;
  readonly fields: readonly ReadingField[];
}

/** One entry of the log. */
function EntryRow({ entry, place, left, stretch, far, isQuestioned, fields, onJudge }: EntryRowProps) {
  const system = useSystem();
  const about = aboutText(entry);
  const at = place ? ` at ${formatQuantity(place.distanceM, "distance", system)}` : "";
  return (
    <tr className={entry.struck ? "pencil line-through" : ""}>
      <th scope="row" className={`number font-normal ${place?.between ? "pencil" : "text-ink"}`}>
        {place ? formatBare(place.distanceM, "distance", system) : ""}
      </th>
      <td>
        {kindText(entry)}
        {entry.struck ? <span className="sr-only"> (set aside)</span> : null}
      </td>
      {fields.map((field) => (
        <td key={field} className="number">
          <Reading entry={entry} field={field} at={at} onJudge={onJudge} />
        </td>
      ))}
      <td className="number text-sm text-quiet">
        {left ? `${fixed(100 * left.mean, 0)} ± ${fixed(100 * halfWidth95(left), 0)}` : ""}
      </td>
      <td className="number text-sm text-quiet">{stretch ? bareUncertain(stretch, system) : ""}</td>
      <td className="max-w-64 text-sm">{about}</td>
      <td className={`number text-sm ${isQuestioned ? "text-ochre" : "text-quiet"}`}>
        {far === undefined ? "" : fixed(Math.abs(far.standing), 1)}
        {isQuestioned ? <span className="sr-only"> in question</span> : null}
      </td>
      <td className="number text-sm text-quiet">
        {far?.without ? <Figure value={far.without} dimension="energyPerDistance" /> : null}
      </td>
      <td>
        <Link
          to={entry.body.kind === "totals" ? "totals" : `?correct=${entry.rootId}`}
          preventScrollReset
          className="entering"
          aria-label={`Correct the entry at ${place ? formatBare(place.distanceM, "distance", system) : "no distance"}`}
        >
          correct
        </Link>
      </td>
    </tr>
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
  const placeOf = ({ rootId }: LiveEntry) => results?.places[rootId];
  const [all, setAll] = useState(ride.log.length <= SHOWN);
  const lines = [...ride.log].sort(
    (a, b) => (placeOf(a)?.distanceM ?? 0) - (placeOf(b)?.distanceM ?? 0) || a.seq - b.seq,
  );
  if (ride.log.length === 0) return null;
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
                  isQuestioned={questioned.has(entry.rootId)}
                  fields={fields}
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
