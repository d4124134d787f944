import { countOf } from "#core/base";
import { useEffect, useState } from "react";
import { Link, useFetcher } from "react-router";
import { isLetterPress } from "#app/ui/letterKeys";
import { saidEntries } from "#core/narration";
import { beganByTie, NO_TIE, TieFields, tieProblem } from "../clocks/filmTie";
import type { SaidAnswer } from "../narration";
import { MomentCard } from "./momentCard";
import { keepReview, type KeptReview } from "./kept";
import type { ReadText, SaidProps } from "./said";
import { Questions } from "./questions";
import { Rest } from "./rest";
import { SpokenText } from "./spokenText";
import { useReview, type Review } from "./useReview";

interface PanelProps extends SaidProps {
  readonly read: ReadText;
  readonly onAnother: () => void;
}

/** Keys: down and up a moment, accept it, drop it. */
function useKeys(review: Review): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isLetterPress(event)) return;
      const { moments, moment, setMoment, decide } = review;
      const indices = moments[moment]?.items.map(({ index }) => index) ?? [];
      if (event.key === "j") setMoment(Math.min(moments.length - 1, moment + 1));
      else if (event.key === "k") setMoment(Math.max(0, moment - 1));
      else if (event.key === "a" || event.key === "x") {
        decide(indices, event.key === "a");
        setMoment(Math.min(moments.length - 1, moment + 1));
      } else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [review]);
}

/** Keeps what was decided so far in this browser, as it is decided. */
function useKept(
  rideId: string,
  source: ReadText["source"],
  { decisions, answers, moment }: Review,
  tie: KeptReview["tie"],
): void {
  useEffect(() => {
    keepReview(rideId, { ...source, decisions: [...decisions], answers: [...answers], moment, tie });
  }, [rideId, source, decisions, answers, moment, tie]);
}

/** Says that a review goes on where it was left. */
function AsLeft({ decided }: { readonly decided: number }) {
  return (
    <p role="status" className="border-l-4 border-ochre-fill bg-sheet px-4 py-2 text-sm">
      It is as you left it: {decided === 1 ? "one reading was" : `${decided || "no"} readings were`} decided.
      “Another text” puts it away.
    </p>
  );
}

/** What came of saving, in a sentence. */
function Answered({ answer, back }: { readonly answer: SaidAnswer; readonly back: string }) {
  const { kept, there, refused, problem } = answer;
  return (
    <div role="status" className="border-l-4 border-spruce bg-sheet px-4 py-3">
      {problem ??
        `${kept} ${kept === 1 ? "line is" : "lines are"} in the log${there ? `; ${there} were there already` : ""}.`}{" "}
      {problem ? null : (
        <Link to={back} className="underline">
          To the strip
        </Link>
      )}
      {refused.map(({ words, sentence }, i) => (
        <p key={i} className="text-rust">
          “{words}”: {sentence}
        </p>
      ))}
    </div>
  );
}

/** A narration gone through: the text left, the entries it would make right. */
export function ReviewPanel(props: PanelProps) {
  const { test, bike, ride, back, read, onAnother } = props;
  const { source, narration, begun } = read;
  const review = useReview(narration, bike, begun);
  const fetcher = useFetcher<SaidAnswer>();
  const [tie, setTie] = useState(begun?.tie ?? NO_TIE);
  useKeys(review);
  useKept(ride.id, source, review, tie);
  const { moments, accepted, decide, decisions } = review;
  const lines = saidEntries(accepted, bike);
  const open = review.items.flatMap((item, index) =>
    decisions.has(index) || review.isOpen(item) ? [] : [index],
  );
  const isDone = open.length === 0 && fetcher.data?.problem === null;
  useEffect(() => {
    if (isDone) keepReview(ride.id, null);
  }, [isDone, ride.id]);
  const beganS = beganByTie(tie, test.day, ride.zone);
  const wrongTie = tieProblem(tie, test.day, ride.zone);
  const save = () => {
    const sent = lines.map(({ body, source }, i) => ({
      key: `${source.filmS ?? "-"}/${source.words}/${body.kind}/${source.filmS === null ? i : ""}`,
      at:
        beganS === null || source.filmS === null
          ? null
          : new Date(Math.round(1000 * (beganS + source.filmS))).toISOString(),
      ...{ body, source },
    }));
    void fetcher.submit({ rideId: ride.id, lines: JSON.stringify(sent) }, { method: "post" });
  };
  return (
    <div className="grid gap-4 p-4 md:p-6">
      <div className="sticky top-0 z-10 -mt-4 flex flex-wrap items-center justify-between gap-3 bg-bone py-3">
        <p>
          <b>{source.name}</b>: {countOf(moments.length, "moment")},{" "}
          {countOf(narration.items.length, "reading")}, {countOf(narration.questions.length, "question")},{" "}
          {narration.left.length} left out.{" "}
          <span className="text-quiet">Keys: j and k go on and back, a accepts, x drops.</span>
        </p>
        <p className="flex flex-wrap gap-3">
          <button type="button" className="button" onClick={onAnother}>
            Another text
          </button>
          {open.length ? (
            <button type="button" className="button" onClick={() => decide(open, true)}>
              Accept all that is open
            </button>
          ) : null}
          <button
            type="button"
            className="button button-main"
            disabled={lines.length === 0 || wrongTie !== null || fetcher.state !== "idle"}
            onClick={save}
          >
            Save {lines.length} {lines.length === 1 ? "line" : "lines"}
          </button>
        </p>
      </div>
      {begun ? <AsLeft decided={begun.decisions.length} /> : null}
      {fetcher.data ? <Answered answer={fetcher.data} back={back} /> : null}
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <SpokenText narration={narration} review={review} />
        <div className="grid gap-4">
          <Questions questions={narration.questions} review={review} />
          <fieldset className="sheet flex flex-wrap gap-3 p-3">
            <legend className="sr-only">The film's clock</legend>
            <TieFields tie={tie} onTie={setTie} isWrong={wrongTie !== null} />
            <span role="status" className={`self-end pb-2 text-sm ${wrongTie ? "text-rust" : "text-quiet"}`}>
              {wrongTie ?? (beganS === null ? "Left empty, the lines have no time." : "")}
            </span>
          </fieldset>
          <div className="sheet">
            <ol aria-label="Moments">
              {moments.map((moment, place) => (
                <MomentCard key={place} moment={moment} place={place} review={review} levels={bike.levels} />
              ))}
            </ol>
            <Rest narration={narration} bikeId={test.bikeId} rideId={ride.id} />
          </div>
        </div>
      </div>
    </div>
  );
}
