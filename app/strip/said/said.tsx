import { useMemo, useState } from "react";
import { useLocation } from "react-router";
import { z } from "zod";
import { readNarration, type Narration, type RiddenBike } from "#core/narration";
import { useHydrated } from "#ui/hydrated";
import { useSystem } from "#ui/system";
import { keepReview, keptReview, type KeptReview } from "./kept";
import { ReviewPanel } from "./reviewPanel";

export interface SaidProps {
  readonly test: { readonly id: string; readonly day: string; readonly bikeId: string };
  readonly bike: RiddenBike;
  readonly ride: { readonly id: string; readonly zone: string };
  readonly back: string;
}

/** Longest file that is read, bytes: ten hours of speech are about one million. */
const LIMIT_BYTES = 4 * 1024 * 1024;

/** Captions that were chosen on the page that takes any files. */
const sentSchema = z.object({ said: z.object({ name: z.string(), text: z.string() }) });

/** A text that was read, and as far as it was gone through. */
export interface ReadText {
  readonly source: Pick<KeptReview, "name" | "text" | "unit">;
  readonly narration: Narration;
  readonly begun: KeptReview | null;
}

const readAs = (text: string, unit: KeptReview["unit"]) => readNarration(text, unit === "" ? {} : { unit });

/** What the page before sent along, or else what was being gone through for this ride; null without any that can be read. */
function atFirst(state: unknown, rideId: string): ReadText | null {
  const sent = sentSchema.safeParse(state);
  const kept = keptReview(rideId);
  const source = sent.success ? { ...sent.data.said, unit: "" as const } : kept;
  const result = source ? readAs(source.text, source.unit) : null;
  if (!source || !result?.ok) return null;
  return { source, narration: result.value, begun: kept?.text === source.text ? kept : null };
}

const unitOf = (choice: unknown): KeptReview["unit"] => (choice === "mi" || choice === "km" ? choice : "");

/** Captions or pasted speech, read in the browser, and then gone through moment by moment. */
export function Said(props: SaidProps) {
  const system = useSystem();
  const { state } = useLocation() as { readonly state: unknown };
  const alive = useHydrated();
  const { id: rideId } = props.ride;
  const first = useMemo(() => (alive ? atFirst(state, rideId) : null), [alive, state, rideId]);
  /** What was read here; null for another text to be chosen; at first what was sent or kept. */
  const [read, setRead] = useState<ReadText | null | "at first">("at first");
  const [problem, setProblem] = useState<string | null>(null);
  const take = (text: string, name: string, unit: KeptReview["unit"]) => {
    const result = readAs(text, unit);
    if (result.ok) setRead({ source: { name, text, unit }, narration: result.value, begun: null });
    setProblem(result.ok ? null : result.problems[0]!.sentence);
  };
  const onSubmit = async (form: FormData) => {
    const file = form.get("file");
    const unit = unitOf(form.get("unit"));
    if (file instanceof File && file.size > 0) {
      if (file.size > LIMIT_BYTES) setProblem("That is over 4 MB: choose the captions, not the film.");
      else take(await file.text(), file.name, unit);
      return;
    }
    take(String(form.get("text") ?? ""), "pasted speech", unit);
  };
  const shown = read === "at first" ? first : read;
  if (shown)
    return (
      <ReviewPanel
        {...props}
        key={shown.source.text}
        read={shown}
        onAnother={() => {
          keepReview(rideId, null);
          setRead(null);
        }}
      />
    );
  return (
    <form
      className="grid max-w-2xl gap-5 p-4 md:p-6"
      onSubmit={(event) => {
        event.preventDefault();
        void onSubmit(new FormData(event.currentTarget));
      }}
    >
      <label className="block text-sm font-medium">
        Captions of the film
        <input
          name="file"
          type="file"
          accept=".srt,.vtt,.txt,text/plain,text/vtt"
          className="input mt-1 py-1.5"
        />
        <span className="mt-1 block font-normal text-quiet">
          SRT, VTT, or text with stamps such as [0:41]. It is read in this browser.
        </span>
      </label>
      <label className="block text-sm font-medium">
        Or paste what was said
        <textarea
          name="text"
          rows={9}
          className="input mt-1"
          placeholder="[4:02] right, that's the sluice house, six and a half miles, gauge says ninety"
        />
      </label>
      <label className="block max-w-60 text-sm font-medium">
        Figures without a unit are in
        <select name="unit" className="input mt-1" defaultValue="">
          <option value="">what is said most, else {system === "imperial" ? "miles" : "kilometres"}</option>
          <option value="mi">miles</option>
          <option value="km">kilometres</option>
        </select>
      </label>
      {problem ? (
        <p role="alert" className="text-rust">
          {problem}
        </p>
      ) : null}
      <div>
        <button className="button button-main">Read it and show me</button>
      </div>
    </form>
  );
}
