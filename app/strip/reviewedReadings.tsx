import { memo } from "react";
import { Form, Link } from "react-router";
import { fixed } from "#core/base";
import { Problems } from "#ui/page";
import { useSpoken } from "#ui/system";
import type { Judgement } from "./tabs/entryRow";
import type { StripResults } from "#app/services/strip/view";

interface JudgedProps {
  readonly results: StripResults;
  /** Ride of an entry; null for what no entry can set aside, such as a logger's stretch. */
  readonly rideIdOf: (rootId: string) => string | null;
  readonly onJudge: (judgement: Judgement) => void;
}

/** Under the strip: readings in question with what can be done about each, and what else is odd. */
export const ReviewedReadings = memo(function Judged({ results, rideIdOf, onJudge }: JudgedProps) {
  const spoken = useSpoken();
  const { flags, odometer, notices } = results;
  return (
    <>
      {flags.map(({ rootId, field, sentence }) => {
        const rideId = rideIdOf(rootId);
        return (
          <div
            key={`${rootId}/${field ?? ""}`}
            className="mt-3 flex flex-wrap items-center justify-between gap-3 border-l-4 border-ochre-fill bg-sheet px-4 py-2"
          >
            <p className="min-w-0 flex-1 basis-72">{spoken(sentence)}</p>
            {rideId ? (
              <Form method="post" preventScrollReset className="flex gap-2">
                <input type="hidden" name="rideId" value={rideId} />
                <button
                  name="judge"
                  value={`strike/${rootId}/${field ?? ""}`}
                  className="button"
                  onClick={(event) => {
                    event.preventDefault();
                    onJudge({ kind: "strike", target: rootId, field: field as Judgement["field"] });
                  }}
                >
                  Set it aside
                </button>
                <Link to={`?correct=${rootId}`} className="button" preventScrollReset>
                  Correct it
                </Link>
              </Form>
            ) : null}
          </div>
        );
      })}
      {odometer?.warn ? (
        <p className="mt-3 border-l-4 border-ochre-fill bg-sheet px-4 py-2">
          The display's distance times {fixed(odometer.k, 3)} is the recorder's.
          {odometer.impliedCircumferenceMm === null
            ? " Check the wheel setting."
            : ` Its wheel setting should be ${fixed(odometer.impliedCircumferenceMm, 0)} mm.`}{" "}
          Distances read from the display alone are corrected by it.
        </p>
      ) : null}
      {notices.length ? (
        <div className="mt-3">
          <Problems sentences={notices.map(spoken)} />
        </div>
      ) : null}
    </>
  );
});
