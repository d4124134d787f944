import { useEffect, useRef, useState, type ReactNode } from "react";
import { sightingOf, type DisplaySample } from "#core/ride/display";
import { formatBare, unitOf } from "#core/base";
import { SIDES, SIGHTING } from "#core/fields";
import type { Bike } from "#core/records";
import { useSystem } from "#ui/system";
import { FIGURES, isMain, MAIN, readFigures, WORDS } from "./figures";

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

interface FiguresFormProps {
  readonly bike: Bike;
  readonly last: Readonly<Record<string, string>>;
  readonly shown: DisplaySample | null;
  /** A tick beside the figures: its name and words. */
  readonly tick: readonly [name: string, words: string];
  /** The figures as read, and the form with the button that sent it. */
  /** It was opened by a press: what is typed next goes into its first figure. */
  readonly opened?: boolean;
  readonly onFigures: (body: Readonly<Record<string, unknown>>, form: FormData, sent: string) => void;
  readonly children: ReactNode;
}

/** What is written in words, and which of two is ridden. */
function WordFields() {
  return (
    <>
      {WORDS.map((name) => (
        <label key={name} className="block text-sm font-medium">
          {SIGHTING[name].label[0]!.toUpperCase() + SIGHTING[name].label.slice(1)}
          <input name={name} autoComplete="off" maxLength={40} className="input min-h-14 text-lg" />
        </label>
      ))}
      <label className="block text-sm font-medium">
        A or B
        <select name="side" className="input min-h-14 text-lg">
          <option value="">as before</option>
          {SIDES.map((side) => (
            <option key={side}>{side}</option>
          ))}
        </select>
      </label>
    </>
  );
}

/** A photograph of the display, whose figures are read off later; it waits with the entry where there is no signal. */
function PhotographField() {
  const [name, setName] = useState<string | null>(null);
  return (
    <label className="button relative min-h-12 has-focus-visible:outline-2">
      {name === null ? "Photograph the display" : "Photograph taken"}
      <input
        type="file"
        name="photograph"
        accept="image/*"
        capture="environment"
        className="absolute inset-0 cursor-pointer opacity-0"
        onChange={(event) => setName(event.target.files?.[0]?.name ?? null)}
      />
    </label>
  );
}

/** The few figures of a check-in; nothing is required. What is wrong is said beside its field and nothing typed is lost. */
export function FiguresForm({
  bike,
  last,
  shown,
  tick: [tick, words],
  opened = false,
  onFigures,
  children,
}: FiguresFormProps) {
  const system = useSystem();
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    if (opened) form.current?.querySelector<HTMLInputElement>("input:not([type=hidden])")?.focus();
  }, [opened]);
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
  const figure = ({ name, label, dimension }: (typeof FIGURES)[number]) => (
    <FigureField
      key={name}
      name={name}
      label={label}
      unit={unitOf(dimension, system)}
      problem={problems[name]}
      last={last[name] ?? ""}
    />
  );
  return (
    <form
      method="post"
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
      <input type="hidden" name="intent" value="figures" />
      <input type="hidden" name="kind" value={tick === "full" ? "start" : "checkIn"} />
      <div className="grid grid-cols-2 gap-3">
        {FIGURES.filter(({ name }) => MAIN[name]?.(bike)).map(figure)}
      </div>
      <details open={Object.keys(problems).some((name) => !(name in MAIN)) || undefined}>
        <summary className="min-h-12 content-center text-spruce underline underline-offset-3">
          More figures
        </summary>
        <div className="mt-2 grid grid-cols-2 gap-3">
          {FIGURES.filter(({ name }) => !isMain(name)).map(figure)}
          <WordFields />
        </div>
      </details>
      <div className="flex flex-wrap items-center gap-x-5">
        {shown ? (
          <button type="button" className="button" onClick={take}>
            Take from the display
          </button>
        ) : null}
        <PhotographField />
        <label className="flex min-h-12 items-center gap-2">
          <input type="checkbox" name={tick} className="size-6 accent-spruce" /> {words}
        </label>
      </div>
      {children}
    </form>
  );
}
