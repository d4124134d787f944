import { useRef, useState, type ReactNode } from "react";
import { sightingOf, type DisplaySample } from "#core/ride/display";
import { formatBare, parseQuantity, unitOf, type DimensionName, type System } from "#core/base";
import type { Bike } from "#core/records";
import { useSystem } from "#ui/system";

interface FigureProps {
  readonly name: string;
  readonly label: string;
  readonly unit: string;
  readonly problem: string | undefined;
  readonly last: string;
}

/** A large figure to type with a thumb; the last value stands in it in pencil. */
export function FigureField({ name, label, unit, problem, last }: FigureProps) {
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

/** What the figures of a form say, or what is wrong with each. */
function readFigures(form: FormData, system: System) {
  const problems: Record<string, string> = {};
  const body: Record<string, unknown> = {};
  for (const { name, dimension } of FIGURES) {
    const text = String(form.get(name) ?? "").trim();
    if (text === "") continue;
    const value = parseQuantity(text, dimension, unitOf(dimension, system));
    if (value.ok) body[name] = value.value;
    else problems[name] = value.problems[0]!.sentence;
  }
  if ((body["percent"] as number) > 100) problems["percent"] = "Percent runs from 0 to 100.";
  if (body["packVolts"] !== undefined) body["underLoad"] = form.get("load") === "on";
  return { body, problems };
}

interface FiguresFormProps {
  readonly bike: Bike;
  readonly last: Readonly<Record<string, string>>;
  readonly shown: DisplaySample | null;
  /** A tick beside the figures: its name and words. */
  readonly tick: readonly [name: string, words: string];
  /** The figures as read, and the form with the button that sent it. */
  readonly onFigures: (body: Readonly<Record<string, unknown>>, form: FormData, sent: string) => void;
  readonly children: ReactNode;
}

/** The few figures of a check-in; nothing is required. What is wrong is said beside its field and nothing typed is lost. */
export function FiguresForm({
  bike,
  last,
  shown,
  tick: [tick, words],
  onFigures,
  children,
}: FiguresFormProps) {
  const system = useSystem();
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
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
  return (
    <form
      ref={form}
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const typed = new FormData(event.currentTarget);
        const read = readFigures(typed, system);
        setProblems(read.problems);
        const { submitter } = event.nativeEvent as SubmitEvent;
        const sent = submitter instanceof HTMLButtonElement ? submitter.value : "";
        if (Object.keys(read.problems).length === 0) onFigures(read.body, typed, sent);
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        {FIGURES.filter(({ shown: has }) => has(bike)).map(({ name, label, dimension }) => (
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
        <label className="flex min-h-12 items-center gap-2">
          <input type="checkbox" name={tick} className="size-6 accent-spruce" /> {words}
        </label>
      </div>
      {children}
    </form>
  );
}
