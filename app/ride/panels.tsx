import { useState, type ReactNode } from "react";
import type { DisplaySample } from "#core/ride/display";
import { END_NAMES, GROUNDS, type End, type Ground } from "#core/fields";
import { type EntryBody } from "#core/ride/log";
import { parseQuantity, unitOf } from "#core/base";
import type { Bike } from "#core/records";
import { useSystem } from "#ui/system";
import { FigureField, FiguresForm } from "./figuresForm";

/** What a panel sends when it is done. */
type Keep = (body: EntryBody, photograph?: File | null) => void;

interface CheckInProps {
  readonly bike: Bike;
  readonly start: boolean;
  /** The last values, as placeholders. */
  readonly last: Readonly<Record<string, string>>;
  /** What a display shows now, to be taken with a tap. */
  readonly shown: DisplaySample | null;
  readonly keep: Keep;
}

/** The photograph of a form; null where none was taken. */
function photographIn(form: FormData): File | null {
  const file = form.get("photograph");
  return file instanceof File && file.size > 0 ? file : null;
}

const LOAD = ["load", "Volts under load"] as const;
const FULL = ["full", "The charger said done"] as const;
const MAIN = "button button-main min-h-14 justify-center text-lg";

/** A check-in, or the start. */
export function CheckInPanel({ bike, start, last, shown, keep }: CheckInProps) {
  return (
    <FiguresForm
      bike={bike}
      last={last}
      shown={shown}
      tick={start ? FULL : LOAD}
      opened={!start}
      onFigures={(body, form) =>
        keep(
          start
            ? { kind: "start", ...body, chargerDone: form.get("full") === "on" }
            : { kind: "checkIn", ...body },
          photographIn(form),
        )
      }
    >
      <button type="submit" className={MAIN}>
        {start ? "Start" : "Save"}
      </button>
    </FiguresForm>
  );
}

/** How the test ended, with the last figures. */
export function EndPanel({
  ends,
  keep,
  ...figures
}: Omit<CheckInProps, "start"> & { readonly ends: readonly End[] }) {
  return (
    <FiguresForm
      {...figures}
      tick={LOAD}
      opened
      onFigures={(body, form, sent) =>
        keep({ kind: "end", reason: sent as End, ...body }, photographIn(form))
      }
    >
      {/* Enter in a field chooses no end. */}
      <button type="submit" disabled hidden aria-hidden />
      <p>The last figures, as far as they can be read, then how it ended:</p>
      {ends.map((end) => (
        <button key={end} type="submit" value={end} className="button min-h-14 justify-start text-lg">
          {END_NAMES[end]}
        </button>
      ))}
    </FiguresForm>
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
        Save
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
        Save
      </button>
    </form>
  );
}
