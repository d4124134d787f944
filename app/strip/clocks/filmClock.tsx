import { Form, useNavigation } from "react-router";
import { clockToSecond } from "#core/base";
import type { Clocks } from "#app/services/recordings/clocks";
import { spanSaid } from "../files/told";
import { TieFields, type TypedTie } from "./filmTie";

interface FilmClockProps {
  readonly film: NonNullable<Clocks["film"]>;
  /** When it began by the recorder; null where that does not tell. */
  readonly byTrack: Clocks["filmBy"];
  readonly rideId: string;
  readonly zone: string;
  readonly tie: TypedTie;
  readonly onTie: (tie: TypedTie) => void;
  /** Lines that were put right, or why not; null before anything was sent. */
  readonly answer: { readonly done: number; readonly problem: string | null } | null;
}

/** What is known of when the film began. */
function filmSaid({ beganS, moments, untimed, spreadS }: FilmClockProps["film"], zone: string): string {
  const lines = (count: number) => `${count} ${count === 1 ? "line" : "lines"}`;
  const without = untimed ? ` ${lines(untimed)} of it ${untimed === 1 ? "has" : "have"} no time.` : "";
  if (beganS === null) return `Nothing ties it to the ride's clock yet.${without}`;
  const spread = moments > 1 ? `, within ${spanSaid(Math.max(1, spreadS))}` : "";
  return `It began at ${clockToSecond(beganS * 1000, zone)}, by ${lines(moments)} taken from what was said${spread}.${without}`;
}

/** The film's clock: tied to the ride's by one known moment, moved as it is typed, kept when it is saved. */
export function FilmClock({ film, byTrack, rideId, zone, tie, onTie, answer }: FilmClockProps) {
  const busy = useNavigation().state !== "idle";
  return (
    <Form
      method="post"
      preventScrollReset
      className="sheet grid content-start gap-3 p-4"
      aria-label="Clock of the film"
    >
      <input type="hidden" name="intent" value="film" />
      <input type="hidden" name="rideId" value={rideId} />
      <h2 className="text-base font-bold">Film</h2>
      <p>
        {filmSaid(film, zone)}
        {byTrack
          ? ` By the places said in it and where the recorder was, it began at ${clockToSecond(byTrack.beganS * 1000, zone)}, give or take ${spanSaid(Math.max(1, byTrack.sdS))}.`
          : ""}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <TieFields tie={tie} onTie={onTie} isWrong={Boolean(answer?.problem)} />
        {byTrack ? (
          <button
            type="button"
            className="button"
            onClick={() => onTie({ clock: clockToSecond(byTrack.beganS * 1000, zone), film: "0:00" })}
          >
            Take the recorder's
          </button>
        ) : null}
        <button className="button button-main" disabled={busy}>
          {busy ? "Working …" : "Save this clock"}
        </button>
      </div>
      {answer?.problem ? (
        <p role="alert" className="text-rust">
          {answer.problem}
        </p>
      ) : null}
      <p role="status" className="text-quiet">
        {answer && !answer.problem
          ? answer.done === 0
            ? "Every line of it had that time already."
            : `${answer.done === 1 ? "One line has" : `${answer.done} lines have`} another time now.`
          : ""}
      </p>
    </Form>
  );
}
