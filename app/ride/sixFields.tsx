import type { DisplaySample } from "#core/ride/display";
import type { End } from "#core/fields";
import type { EntryBody } from "#core/ride/log";
import type { Bike } from "#core/records";
import { BarPanel, CheckInPanel, EndPanel, GroundPanel, LevelPanel, NotePanel } from "./panels";
import type { LogState } from "./state";

/** What opens under the fields. */
export type Panel = "checkIn" | "level" | "ground" | "note" | "end" | "bar";

interface SixFieldsProps {
  readonly bike: Bike;
  readonly state: LogState;
  readonly shown: DisplaySample | null;
  /** Which of the ends count. */
  readonly ends: readonly End[];
  readonly panel: Panel | null;
  readonly onPanel: (panel: Panel | null) => void;
  /** The bar that was just noted, for its details. */
  readonly lostBar: { readonly id: string; readonly bar: number } | null;
  readonly onLoseBar: () => void;
  readonly onStopOrGo: () => void;
  readonly keep: (body: EntryBody, photograph?: File | null) => void;
  readonly onBarDetails: (body: EntryBody) => void;
}

/** Brings a panel that opens into view, above a phone's bar. */
const intoView = (panel: HTMLElement | null) => {
  panel?.querySelector<HTMLElement>("input, textarea")?.focus({ preventScroll: true });
  panel?.scrollIntoView({ block: "nearest" });
};

/** The six large fields, and under them what the tapped one asks. */
export function SixFields(props: SixFieldsProps) {
  const { bike, state, shown, ends, panel, onPanel, lostBar, onLoseBar, onStopOrGo, keep, onBarDetails } =
    props;
  const open = (next: Panel) => ({ open: next, act: () => onPanel(panel === next ? null : next) });
  const fields: readonly { name: string; now: string; act: () => void; open?: Panel; off?: boolean }[] = [
    { name: "Check-in", now: state.last["distanceM"] ?? "", ...open("checkIn") },
    {
      name: "Bar lost",
      now: state.nextBar ? `bar ${state.nextBar} next` : "no bars",
      act: onLoseBar,
      off: state.nextBar === 0,
    },
    { name: "Level", now: state.level, ...open("level") },
    { name: "Ground", now: state.ground, ...open("ground") },
    { name: state.standing ? "Go" : "Stop", now: state.standing ? "standing" : "riding", act: onStopOrGo },
    { name: "Note", now: "", ...open("note") },
  ];
  const figures = { bike, last: state.last, shown, keep };
  return (
    <>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
        {fields.map(({ name, now, act, open: opens, off }) => (
          <button
            key={name}
            type="button"
            onClick={act}
            disabled={off}
            aria-expanded={opens ? panel === opens : undefined}
            className={`sheet min-h-20 px-3 py-2 text-left ${panel === opens && opens ? "border-spruce" : ""}`}
          >
            <span className="block text-lg font-bold text-spruce">{name}</span>
            <span className="block text-sm text-quiet">{now}</span>
          </button>
        ))}
      </div>
      {panel ? (
        <div key={panel} ref={intoView} className="sheet scroll-mb-24 p-4 md:scroll-mb-4">
          {panel === "checkIn" ? <CheckInPanel {...figures} start={false} /> : null}
          {panel === "level" ? <LevelPanel bike={bike} now={state.level} keep={keep} /> : null}
          {panel === "ground" ? <GroundPanel now={state.ground} keep={keep} /> : null}
          {panel === "note" ? <NotePanel keep={keep} /> : null}
          {panel === "end" ? <EndPanel {...figures} ends={ends} /> : null}
          {panel === "bar" && lostBar ? (
            <BarPanel bar={lostBar.bar} last={state.last["distanceM"] ?? ""} keep={onBarDetails} />
          ) : null}
        </div>
      ) : null}
    </>
  );
}
