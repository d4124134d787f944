import { useMemo, useState } from "react";
import { useLocation } from "react-router";
import { z } from "zod";
import { readNarration, type Narration, type RiddenBike } from "#core/narration";
import { useHydrated } from "#ui/hydrated";
import { useSystem } from "#ui/system";
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

interface ReadText {
  readonly name: string;
  readonly narration: Narration;
}

const readAs = (text: string, unit: string) =>
  readNarration(text, unit === "mi" || unit === "km" ? { unit } : {});

/** What the page before sent along, read; null without any that can be. */
function sentWith(state: unknown): ReadText | null {
  const sent = sentSchema.safeParse(state);
  const result = sent.success ? readAs(sent.data.said.text, "") : null;
  return sent.success && result?.ok ? { name: sent.data.said.name, narration: result.value } : null;
}

/** Captions or pasted speech, read in the browser, and then gone through moment by moment. */
export function Said(props: SaidProps) {
  const system = useSystem();
  const { state } = useLocation() as { readonly state: unknown };
  const alive = useHydrated();
  const sent = useMemo(() => (alive ? sentWith(state) : null), [alive, state]);
  /** What was read here; null for another text to be chosen; at first what the page before sent. */
  const [read, setRead] = useState<ReadText | null | "as sent">("as sent");
  const [problem, setProblem] = useState<string | null>(null);
  const take = (text: string, name: string, unit: string) => {
    const result = readAs(text, unit);
    if (result.ok) setRead({ name, narration: result.value });
    setProblem(result.ok ? null : result.problems[0]!.sentence);
  };
  const onSubmit = async (form: FormData) => {
    const file = form.get("file");
    const unit = String(form.get("unit"));
    if (file instanceof File && file.size > 0) {
      if (file.size > LIMIT_BYTES) setProblem("That is over 4 MB: choose the captions, not the film.");
      else take(await file.text(), file.name, unit);
      return;
    }
    take(String(form.get("text") ?? ""), "pasted speech", unit);
  };
  const shown = read === "as sent" ? sent : read;
  if (shown)
    return (
      <ReviewPanel {...props} name={shown.name} narration={shown.narration} onAnother={() => setRead(null)} />
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
