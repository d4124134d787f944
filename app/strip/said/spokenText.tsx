import { stopwatchText } from "#core/base";
import type { Narration } from "#core/narration";
import type { Review } from "./useReview";

interface Mark {
  readonly from: number;
  readonly to: number;
  readonly index: number | null;
  readonly because: string;
  readonly isSetUp: boolean;
}

/** What was understood of each piece, in order and without overlaps. */
function marksOf(narration: Narration): ReadonlyMap<number, readonly Mark[]> {
  const byPiece = new Map<number, Mark[]>();
  const add = (piece: number, mark: Mark) => byPiece.set(piece, [...(byPiece.get(piece) ?? []), mark]);
  narration.items.forEach(({ place, because }, index) =>
    add(place.piece, { ...place, index, because, isSetUp: false }),
  );
  for (const { place, because } of narration.setUp)
    add(place.piece, { ...place, index: null, because, isSetUp: true });
  for (const { place, because } of narration.left)
    add(place.piece, { ...place, index: null, because, isSetUp: false });
  for (const [piece, marks] of byPiece)
    byPiece.set(
      piece,
      [...marks]
        .sort((a, b) => a.from - b.from || b.to - a.to)
        .filter((mark, i, all) => i === 0 || mark.from >= Math.max(...all.slice(0, i).map(({ to }) => to))),
    );
  return byPiece;
}

/** The text as it was said: what was understood is underlined, what was left out dotted, each with its reason. */
export function SpokenText({
  narration,
  review,
}: {
  readonly narration: Narration;
  readonly review: Review;
}) {
  const marks = marksOf(narration);
  const momentOf = (index: number) =>
    review.moments.findIndex(({ items }) => items.some((each) => each.index === index));
  return (
    <ol
      className="sheet grid content-start gap-3 p-4 md:max-h-[calc(100vh-9rem)] md:overflow-y-auto"
      aria-label="What was said"
      tabIndex={0}
    >
      {narration.spoken.map(({ atS, text }, piece) => {
        const own = marks.get(piece) ?? [];
        let at = 0;
        return (
          <li key={piece} className="grid grid-cols-[3.5rem_minmax(0,1fr)] gap-2">
            <span className="text-sm text-quiet tabular-nums">{atS === null ? "" : stopwatchText(atS)}</span>
            <p>
              {own.flatMap((mark, i) => {
                const before = text.slice(at, mark.from);
                const { index } = mark;
                const words = text.slice(mark.from, mark.to);
                at = mark.to;
                return [
                  before,
                  index === null ? (
                    <span
                      key={i}
                      title={mark.because}
                      className={mark.isSetUp ? "pencil" : "border-b-2 border-dotted border-ochre"}
                    >
                      {words}
                    </span>
                  ) : (
                    <a
                      key={i}
                      href={`#moment-${momentOf(index)}`}
                      title={mark.because}
                      className={`border-b-2 border-spruce text-ink ${review.moment === momentOf(index) ? "bg-press" : "bg-hover"} ${review.decisions.get(index)?.kept === false ? "line-through" : "no-underline"}`}
                      onClick={() => review.setMoment(momentOf(index))}
                    >
                      {words}
                    </a>
                  ),
                ];
              })}
              {text.slice(at)}
            </p>
          </li>
        );
      })}
    </ol>
  );
}
