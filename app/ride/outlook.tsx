import type { ReactNode } from "react";
import type { AgainstGuess, AgainstPlan, Arrival, LiveTurn, LiveView } from "#core/live";
import { formatUncertain, spanText, writeShare } from "#core/base";
import { useSpoken, useSystem } from "#ui/system";
import { useSteadyHeight } from "./useSteady";

const TURN_LOOKS = {
  early: "border-spruce",
  soon: "border-ochre-fill",
  now: "border-rust",
  late: "border-rust",
} as const;

interface OutlookProps {
  readonly view: LiveView | null;
  /** Against the plan's forecast; null without a plan. */
  readonly planned: {
    readonly turn: LiveTurn;
    readonly against: AgainstPlan;
    /** When the way is done, and how that lies to the dark; null where nothing tells. */
    readonly arrival: Arrival | null;
    /** What explains it, by the road load; may be empty. */
    readonly why: string;
  } | null;
  /** The display's own guess beside the ledger; null when none was noted. */
  readonly guess: AgainstGuess | null;
  /** The figures are of the log before its newest entry. */
  readonly isOld: boolean;
  readonly children?: ReactNode;
}

/** What is left, in one strong figure; whether to turn; and how it goes against the plan. */
export function Outlook({ view, planned, guess, isOld, children }: OutlookProps) {
  if (!view)
    return (
      <p className="text-quiet">
        What is left stands here once two check-ins say how far and how much: distance with percent, bars or
        volts.
      </p>
    );
  return (
    <section aria-label="What is left" className="grid gap-2">
      <Left view={view} planned={planned} guess={guess} isOld={isOld} />
      {children}
    </section>
  );
}

/** The figures and their sentences, which change with every entry and move nothing that is about to be tapped. */
function Left({
  view,
  planned,
  guess,
  isOld,
}: Omit<OutlookProps, "view" | "children"> & { readonly view: LiveView }) {
  const system = useSystem();
  const say = useSpoken();
  const steady = useSteadyHeight<HTMLDivElement>();
  return (
    <div ref={steady} className="grid content-start gap-2">
      {isOld ? (
        <p role="status" className="text-ochre">
          Without the newest entry: it is being calculated.
        </p>
      ) : null}
      <p>
        <span className="text-5xl leading-none font-bold">{writeShare(view.left).value} %</span>
        <span className="text-xl"> {writeShare(view.left).spread}</span>
        <span className="text-quiet"> left, {formatUncertain(view.leftWh, "energy", system)}</span>
      </p>
      <dl className="grid grid-cols-3 gap-2">
        {(
          [
            ["to the reserve", view.toReserve],
            ["to full power's end", view.toFullPower],
            ["to the end", view.toEnd],
          ] as const
        ).map(([name, value]) => (
          <div key={name}>
            <dt className="text-sm text-quiet">{name}</dt>
            <dd className="pencil">{spanText(value, "distance", system)}</dd>
          </div>
        ))}
      </dl>
      {planned ? (
        <>
          <p
            role={planned.turn.state === "early" ? undefined : "alert"}
            className={`border-l-4 bg-sheet px-4 py-2 font-bold ${TURN_LOOKS[planned.turn.state]}`}
          >
            {say(planned.turn.sentence)}
          </p>
          {planned.arrival ? (
            <p className={(planned.arrival.daylightMin ?? 0) < 0 ? "text-ochre" : "text-quiet"}>
              {planned.arrival.sentence}
            </p>
          ) : null}
          <p className={planned.against.odd ? "text-ochre" : "text-quiet"}>
            {planned.against.sentence} {say(planned.why)}
          </p>
        </>
      ) : null}
      {guess && !isOld ? (
        <p className={guess.says === "as the ledger" ? "text-quiet" : "text-ochre"}>{say(guess.sentence)}</p>
      ) : null}
    </div>
  );
}
