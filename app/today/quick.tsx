import { useEffect, useRef, useState } from "react";
import { Form, href, useNavigation } from "react-router";
import type { QuickFigure } from "#app/workers/quick.worker";
import { durationText, formatQuantity, formatUncertain, Z_95 } from "#core/base";
import { useAnnounced } from "#ui/announce";
import { Figure } from "#ui/figure";
import { Problems } from "#ui/page";
import { useSpoken, useSystem } from "#ui/system";
import { useQuick } from "./useQuick";

const EXAMPLES = [
  "52 V 17 Ah, full, 27 mi, 31 % left, throttle, 175 lb rider",
  "612 Wh, from 98 to 31 % over 43 km",
  "48 V 14 Ah, full, died at 33 miles, claimed 45 miles",
];

/** The figure, what would make it surer, and how each word was taken. */
function Found({ figure }: { readonly figure: QuickFigure }) {
  const system = useSystem();
  const say = useSpoken();
  const { whPerM, because, rangeM, surer, says, unread, assumed, notices } = figure;
  return (
    <div className="grid content-start gap-3">
      <div>
        <Figure value={whPerM} dimension="energyPerDistance" large />
        <p className="mt-1 text-sm text-quiet">
          {say(because)}. The true figure lies in this span 95 times in 100.
        </p>
      </div>
      <Problems sentences={notices.map(say)} />
      {rangeM ? <p>Range on a full charge: {formatUncertain(rangeM, "distance", system)}.</p> : null}
      {surer.length ? (
        <div>
          <h3 className="font-bold">What would make it surer</h3>
          <ul className="text-sm">
            {surer.map(({ what, minutes, sdLeft }) => (
              <li key={what}>
                {what}: ± {formatQuantity(Z_95 * sdLeft, "energyPerDistance", system)},{" "}
                {durationText(60 * minutes)} of work
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <div>
        <h3 className="font-bold">Understood</h3>
        <ul className="mt-1 flex flex-wrap gap-1.5 text-sm">
          {says.map((each) => (
            <li key={each} className="rounded-sheet border border-spruce px-1.5 py-0.5">
              {each}
            </li>
          ))}
          {unread.map((each) => (
            <li
              key={each}
              className="rounded-sheet border border-dashed border-ochre px-1.5 py-0.5 text-ochre italic"
            >
              {each} <span className="not-italic">not read</span>
            </li>
          ))}
        </ul>
      </div>
      {assumed.length ? <p className="pencil text-sm">Assumed: {assumed.join(" ")}</p> : null}
    </div>
  );
}

/** One box for a pack and a ride in a few words: its figure as they are typed, and a test of it at a press. */
export function QuickBox({ day, refused }: { readonly day: string; readonly refused: string | null }) {
  const system = useSystem();
  const busy = useNavigation().state !== "idle";
  const [text, setText] = useState("");
  const { ask, told } = useQuick(day);
  const type = (next: string) => {
    setText(next);
    ask(next);
  };
  const box = useRef<HTMLTextAreaElement>(null);
  // What was typed before the page was alive is there still.
  useEffect(() => {
    const early = box.current?.value ?? "";
    if (early === "") return;
    setText(early);
    ask(early);
  }, [ask]);
  const figure = told?.figure ?? null;
  const problem = told?.problems[0]?.sentence ?? null;
  useAnnounced(figure ? `${formatUncertain(figure.whPerM, "energyPerDistance", system)}.` : problem);
  return (
    <Form
      method="post"
      action={href("/quick")}
      className="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-2"
    >
      <div className="grid gap-3">
        <label htmlFor="quick" className="font-bold">
          A pack and a ride, as you would say them
        </label>
        <textarea
          id="quick"
          ref={box}
          name="notes"
          rows={4}
          value={text}
          onChange={(event) => type(event.target.value)}
          className="input py-2 text-lg"
          placeholder={EXAMPLES[0]}
          aria-describedby="quick-hint"
          maxLength={60_000}
          required
        />
        <p id="quick-hint" className="text-sm text-quiet">
          The pack by volts and amp-hours or by Wh; how far; the charge left in percent, bars or volts, or
          that it died. More if you know it: weights, level or throttle, ground, climb, the air, the claim.
          What you said to your camera may be pasted as well.
        </p>
        {text === "" ? (
          <ul className="grid justify-items-start gap-1 text-sm">
            {EXAMPLES.map((example) => (
              <li key={example}>
                <button
                  type="button"
                  className="button button-plain text-left whitespace-normal"
                  onClick={() => type(example)}
                >
                  {example}
                </button>
              </li>
            ))}
          </ul>
        ) : null}
        <label className="grid gap-1 text-sm font-medium sm:max-w-80">
          Name of the bike
          <input name="bike" className="input" maxLength={80} autoComplete="off" />
          <span className="font-normal text-quiet">
            Optional. A bike of that name is used if there is one.
          </span>
        </label>
        <Problems sentences={refused ? [refused] : []} />
        <div>
          <button type="submit" className="button button-main" disabled={busy || (told !== null && !figure)}>
            Make it a test
          </button>
        </div>
      </div>
      {figure ? <Found figure={figure} /> : problem ? <p className="text-ochre">{problem}</p> : null}
    </Form>
  );
}
