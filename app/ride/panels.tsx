import { useRef, useState, type ReactNode } from "react";
import { sightingOf, type Shown } from "#core/device";
import { GROUNDS, type EntryBody, type Ground } from "#core/log";
import { formatBare, parseQuantity, unitOf, type DimensionName } from "#core/quantities";
import type { Bike } from "#core/records";
import { useSystem } from "#ui/system";

/** What a panel sends when it is done. */
type Keep = (body: EntryBody) => void;

interface FigureProps {
  readonly name: string;
  readonly label: string;
  readonly unit: string;
  readonly problem: string | undefined;
  readonly last: string;
}

/** A large figure to type with a thumb; the last value stands in it in pencil. */
function FigureField({ name, label, unit, problem, last }: FigureProps) {
  return (
    <div>
      <label htmlFor={`figure-${name}`} className="block text-sm font-medium">
        {label}
      </label>
      <div className="flex items-center gap-1">
        <input
          id={`figure-${name}`}
          name={name}
          inputMode="decimal"
          autoComplete="off"
          placeholder={last}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? `figure-${name}-problem` : undefined}
          className="input min-h-14 text-2xl placeholder:text-ochre placeholder:italic"
        />
        <span className="w-9 text-quiet">{unit}</span>
      </div>
      {problem ? (
        <p id={`figure-${name}-problem`} role="alert" className="text-sm text-rust">
          {problem}
        </p>
      ) : null}
    </div>
  );
}

interface CheckInProps {
  readonly bike: Bike;
  readonly start: boolean;
  /** The last values, as placeholders. */
  readonly last: Readonly<Record<string, string>>;
  /** What a display shows now, to be taken with a tap. */
  readonly shown: Shown | null;
  readonly keep: Keep;
}

const FIGURES: readonly {
  name: string;
  label: string;
  dimension: DimensionName;
  shown: (bike: Bike) => boolean;
}[] = [
  { name: "distanceM", label: "Distance", dimension: "distance", shown: () => true },
  { name: "percent", label: "Percent", dimension: "percent", shown: ({ percentStep }) => percentStep > 0 },
  { name: "bars", label: "Bars", dimension: "count", shown: ({ bars }) => bars > 0 },
  { name: "packVolts", label: "Volts", dimension: "volts", shown: ({ meterStepV }) => meterStepV > 0 },
];

/** The few figures of a check-in, or of the start; nothing is required. */
export function CheckInPanel({ bike, start, last, shown, keep }: CheckInProps) {
  const system = useSystem();
  const form = useRef<HTMLFormElement>(null);
  const take = () => {
    if (!shown || !form.current) return;
    const seen = sightingOf(shown) as Readonly<Record<string, number | boolean | undefined>>;
    for (const { name, dimension } of FIGURES) {
      const input = form.current.elements.namedItem(name);
      const value = seen[name];
      if (input instanceof HTMLInputElement && typeof value === "number")
        input.value = formatBare(value, dimension, system);
    }
    const load = form.current.elements.namedItem("load");
    if (load instanceof HTMLInputElement) load.checked = seen["underLoad"] === true;
  };
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  return (
    <form
      ref={form}
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const form = new FormData(event.currentTarget);
        const found: Record<string, string> = {};
        const body: Record<string, unknown> = {};
        for (const { name, dimension } of FIGURES) {
          const text = String(form.get(name) ?? "").trim();
          if (text === "") continue;
          const value = parseQuantity(text, dimension, unitOf(dimension, system));
          if (value.ok) body[name] = value.value;
          else found[name] = value.problems[0]!.sentence;
        }
        if ((body["percent"] as number) > 100) found["percent"] = "Percent runs from 0 to 100.";
        setProblems(found);
        if (Object.keys(found).length > 0) return;
        const rested = body["packVolts"] === undefined ? {} : { underLoad: form.get("load") === "on" };
        keep(
          start
            ? { kind: "start", ...body, ...rested, chargerDone: form.get("full") === "on" }
            : { kind: "checkIn", ...body, ...rested },
        );
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        {FIGURES.filter(({ shown }) => shown(bike)).map(({ name, label, dimension }) => (
          <FigureField
            key={name}
            name={name}
            label={label}
            unit={unitOf(dimension, system)}
            problem={problems[name]}
            last={last[name] ?? ""}
          />
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-x-5">
        {shown ? (
          <button type="button" className="button" onClick={take}>
            Take from the display
          </button>
        ) : null}
        {start ? (
          <label className="flex min-h-12 items-center gap-2">
            <input type="checkbox" name="full" className="size-6 accent-spruce" /> The charger said done
          </label>
        ) : (
          <label className="flex min-h-12 items-center gap-2">
            <input type="checkbox" name="load" className="size-6 accent-spruce" /> Volts under load
          </label>
        )}
      </div>
      <button type="submit" className="button button-main min-h-14 justify-center text-lg">
        {start ? "Start" : "Keep"}
      </button>
    </form>
  );
}

function Choices({ children }: { readonly children: ReactNode }) {
  return <div className="grid grid-cols-2 gap-2">{children}</div>;
}

const CHOICE = "button min-h-14 justify-center text-lg";

/** The bike's levels, one tap each. */
export function LevelPanel({
  bike,
  now,
  keep,
}: {
  readonly bike: Bike;
  readonly now: string;
  readonly keep: Keep;
}) {
  return (
    <Choices>
      {[...bike.levels, ...(bike.throttle ? ["throttle"] : [])].map((level) => (
        <button
          key={level}
          type="button"
          aria-pressed={level === now}
          className={`${CHOICE} ${level === now ? "button-main" : ""}`}
          onClick={() => keep({ kind: "checkIn", level })}
        >
          {level}
        </button>
      ))}
    </Choices>
  );
}

/** The grounds, one tap each. */
export function GroundPanel({ now, keep }: { readonly now: string; readonly keep: Keep }) {
  return (
    <Choices>
      {GROUNDS.map((ground: Ground) => (
        <button
          key={ground}
          type="button"
          aria-pressed={ground === now}
          className={`${CHOICE} ${ground === now ? "button-main" : ""}`}
          onClick={() => keep({ kind: "checkIn", ground })}
        >
          {ground}
        </button>
      ))}
    </Choices>
  );
}

/** A bar's details after its tap: where it went, and anything else, as a correction of the entry. */
export function BarPanel({
  bar,
  last,
  keep,
}: {
  readonly bar: number;
  /** The last distance noted, in pencil. */
  readonly last: string;
  readonly keep: (body: EntryBody) => void;
}) {
  const system = useSystem();
  const [problem, setProblem] = useState<string | undefined>();
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const text = String(new FormData(event.currentTarget).get("distanceM") ?? "").trim();
        if (text === "") return setProblem("Type the distance, or leave it: the time is noted.");
        const value = parseQuantity(text, "distance", unitOf("distance", system));
        if (!value.ok) return setProblem(value.problems[0]!.sentence);
        return keep({ kind: "barLost", bar, distanceM: value.value });
      }}
    >
      <p>
        Bar {bar} is noted, with its time. Its place is reckoned from the check-ins around it, unless you read
        it:
      </p>
      <FigureField
        name="distanceM"
        label="Distance"
        unit={unitOf("distance", system)}
        problem={problem}
        last={last}
      />
      <button type="submit" className="button button-main min-h-14 justify-center text-lg">
        Keep
      </button>
    </form>
  );
}

/** A remark. */
export function NotePanel({ keep }: { readonly keep: Keep }) {
  const [text, setText] = useState("");
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim()) keep({ kind: "note", note: text.trim().slice(0, 2000) });
      }}
    >
      <label htmlFor="note" className="text-sm font-medium">
        Note
      </label>
      <textarea
        id="note"
        value={text}
        rows={3}
        onChange={(event) => setText(event.target.value)}
        className="input py-2 text-lg"
      />
      <button type="submit" className="button button-main min-h-14 justify-center text-lg">
        Keep
      </button>
    </form>
  );
}
