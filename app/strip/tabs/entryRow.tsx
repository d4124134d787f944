import { Link } from "react-router";
import {
  END_NAMES,
  endsOf,
  SIGHTING,
  SIGHTING_FIELDS,
  type Field,
  type Sighting,
  type SightingField,
} from "#core/fields";
import { READING_FIELDS, type LiveEntry, type ReadingField, type StrikeField } from "#core/ride/log";
import {
  fixed,
  forField,
  formatBare,
  formatQuantity,
  stopwatchText,
  writeUncertain,
  type Estimate,
  type System,
  writeShare,
} from "#core/base";
import { useSystem } from "#ui/system";
import { Figure } from "#ui/figure";
import type { StripResults } from "#app/services/strip/view";

export interface Judgement {
  readonly kind: "strike" | "restore";
  readonly target: string;
  readonly field: StrikeField | null;
}

/** Sets a reading aside or restores it; without script the form does it. */
export type OnJudge = (judgement: Judgement) => void;

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
  readonly onJudge: OnJudge;
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

const shareText = (share: Estimate) => {
  const { value, spread } = writeShare(share);
  return `${value} ${spread}`;
};

/** Energy per distance with its plus-or-minus, under a heading that names the unit. */
function bareUncertain(whPerM: Estimate, system: System): string {
  const { value, spread } = writeUncertain(whPerM, "energyPerDistance", system);
  return [value, spread].filter(Boolean).join(" ");
}

/** Quantities beside the charge that an entry may hold, in the order of their declaration. */
const BESIDE = SIGHTING_FIELDS.filter((name) => {
  const { kind, line }: Field = SIGHTING[name];
  const own: readonly string[] = [...READING_FIELDS, "distanceM", "displayM", "restMin"];
  return kind === "quantity" && line !== null && !own.includes(name);
});

/** A quantity of an entry as it is said: "6 to 7 A", "21 mph", "142 heart". */
function besideText(name: SightingField, seen: Partial<Sighting>, system: System): string {
  if (seen[name] === undefined) return "";
  const { dimension, line, siPerStored = 1 }: Field = SIGHTING[name];
  const text = (value: number) =>
    dimension === "count" || dimension === null
      ? `${forField(value)} ${line?.unit ?? line?.says ?? ""}`
      : formatQuantity(value * siPerStored, dimension, system);
  const [low, high] = endsOf(name, seen);
  const lead = line?.overall || name === "rangeGuessM" || name === "climbM" ? `${line?.says} ` : "";
  return `${lead}${low === high ? "" : `${text(low).replace(/\s*[^\d.,\s-].*$/u, "")} to `}${text(high)}`;
}

/** What else an entry says: amps, watts, speed, air, pulse and the like; level, ground, note. */
function aboutText({ body, source }: LiveEntry, system: System): string {
  return [
    ...BESIDE.map((name) => besideText(name, body as Partial<Sighting>, system)),
    "level" in body ? body.level : "",
    "ground" in body ? body.ground : "",
    "note" in body && body.note ? `“${body.note}”` : "",
    source ? `said${source.filmS === null ? "" : ` at ${stopwatchText(source.filmS)} in the film`}` : "",
  ]
    .filter(Boolean)
    .join(", ");
}

interface EntryRowProps {
  readonly entry: LiveEntry;
  readonly onJudge: OnJudge;
  readonly place: StripResults["places"][string] | undefined;
  /** Share of the energy left there. */
  readonly left: Estimate | null;
  /** Energy per distance since the mark before. */
  readonly stretch: Estimate | null;
  /** Its reading that stands farthest off, and the figure without it. */
  readonly far: { readonly standing: number; readonly without: Estimate | null } | undefined;
  readonly isQuestioned: boolean;
  /** A photograph beside it; null without one. */
  readonly photographId: string | null;
  readonly fields: readonly ReadingField[];
  /** By the ride's clock; empty where none was noted. */
  readonly clock: string;
}

/** One entry of the log. */
export function EntryRow({
  entry,
  place,
  left,
  stretch,
  far,
  isQuestioned,
  photographId,
  fields,
  clock,
  onJudge,
}: EntryRowProps) {
  const system = useSystem();
  const about = aboutText(entry, system);
  const at = place ? ` at ${formatQuantity(place.distanceM, "distance", system)}` : "";
  return (
    <tr className={entry.struck ? "pencil line-through" : ""}>
      <th scope="row" className={`number font-normal ${place?.between ? "pencil" : "text-ink"}`}>
        {place && !(place.between && entry.body.kind === "note")
          ? formatBare(place.distanceM, "distance", system)
          : ""}
      </th>
      <td>
        {kindText(entry)}
        {clock ? <span className="block text-sm text-quiet">{clock}</span> : null}
        {entry.struck ? <span className="sr-only"> (set aside)</span> : null}
      </td>
      {fields.map((field) => (
        <td key={field} className="number">
          <Reading entry={entry} field={field} at={at} onJudge={onJudge} />
        </td>
      ))}
      <td className="number text-sm text-quiet">{left ? shareText(left) : ""}</td>
      <td className="number text-sm text-quiet">{stretch ? bareUncertain(stretch, system) : ""}</td>
      <td className="max-w-64 text-sm">
        {about}
        {photographId ? (
          <Link
            to={`photographs?at=${photographId}`}
            className="ml-1 text-spruce underline underline-offset-3"
            aria-label={`Photograph of the entry${at}`}
          >
            photograph
          </Link>
        ) : null}
      </td>
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
          className="entering whitespace-nowrap"
          aria-label={`Correct the entry at ${place ? formatBare(place.distanceM, "distance", system) : "no distance"}`}
        >
          correct
        </Link>
      </td>
    </tr>
  );
}
