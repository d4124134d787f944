import { useEffect, useRef, useState } from "react";
import { stopwatchText } from "#core/base";
import type { Item } from "#core/narration";
import { isChangeable, itemText, typedValue, valueText } from "./itemText";
import type { Moment, Review } from "./useReview";

interface ChipProps {
  readonly item: Item;
  readonly index: number;
  readonly review: Review;
  readonly levels: readonly string[];
}

/** One thing that was understood: pressed, it is changed in its place or dropped. */
function Chip({ item, index, review, levels }: ChipProps) {
  const [open, setOpen] = useState(false);
  const decision = review.decisions.get(index);
  const value = decision?.value ?? item.value;
  const asks = review.isOpen({ ...item, value });
  const dropped = decision?.kept === false;
  const unsure = item.approx || /unsaid/.test(item.because);
  const set = (text: string) => {
    const typed = typedValue(text, item.kind === "level" ? "" : item.value);
    if (typed !== null) review.change(index, typed);
    setOpen(false);
  };
  if (open || (asks && !dropped))
    return item.kind === "level" ? (
      <label className="text-sm">
        level “{valueText(item.value)}” is{" "}
        <select
          className="input inline-block w-auto"
          value=""
          onChange={({ target }) =>
            target.value === "drop" ? review.decide([index], false) : set(target.value)
          }
        >
          <option value="">choose</option>
          {levels.map((level) => (
            <option key={level}>{level}</option>
          ))}
          <option value="drop">none of these</option>
        </select>
      </label>
    ) : (
      <input
        className="input inline-block w-28"
        aria-label={`Instead of ${itemText(item)}`}
        defaultValue={valueText(value)}
        autoFocus
        onBlur={({ target }) => set(target.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter") set(event.currentTarget.value);
          if (event.key === "Escape") setOpen(false);
        }}
      />
    );
  return (
    <span
      className={`inline-flex items-center rounded-sheet border ${dropped ? "border-rule text-quiet line-through" : unsure ? "input-pencil border-dashed" : decision?.kept ? "border-spruce bg-hover" : "border-edge"}`}
      title={item.because}
    >
      <button
        type="button"
        className="min-h-8 cursor-pointer px-2"
        aria-label={dropped ? `Take ${itemText(item, value)} back in` : `Change ${itemText(item, value)}`}
        onClick={() => (dropped ? review.decide([index], true) : isChangeable(item) && setOpen(true))}
      >
        {itemText(item, value)}
        {item.withdrawn === null ? null : (
          <span className="text-sm text-quiet">, {item.withdrawn} taken back</span>
        )}
      </button>
      {dropped ? null : (
        <button
          type="button"
          className="min-h-8 min-w-8 cursor-pointer text-quiet"
          aria-label={`Drop ${itemText(item, value)}`}
          onClick={() => review.decide([index], false)}
        >
          ×
        </button>
      )}
    </span>
  );
}

interface MomentProps {
  readonly moment: Moment;
  readonly place: number;
  readonly review: Review;
  readonly levels: readonly string[];
}

/** What belongs together, with one press to accept all of it. */
export function MomentCard({ moment, place, review, levels }: MomentProps) {
  const element = useRef<HTMLLIElement>(null);
  const wasHere = useRef(place === 0);
  const isHere = review.moment === place;
  const indices = moment.items.map(({ index }) => index);
  const open = indices.filter((index) => !review.decisions.has(index));
  const taken = indices.filter((index) => review.decisions.get(index)?.kept).length;
  useEffect(() => {
    // The first one is here from the start: nothing moves before a key does.
    if (isHere && !wasHere.current) element.current?.scrollIntoView({ block: "nearest" });
    wasHere.current = isHere;
  }, [isHere]);
  return (
    <li
      ref={element}
      id={`moment-${place}`}
      aria-current={isHere ? "step" : undefined}
      className={`scroll-mt-32 border-b border-rule p-3 ${isHere ? "border-l-4 border-l-spruce" : ""}`}
    >
      <div className="flex items-baseline justify-between gap-3">
        <b>
          {moment.atS === null ? `moment ${place + 1}` : stopwatchText(moment.atS)}
          <span className="ml-2 text-sm font-normal text-quiet">
            {open.length ? "" : taken ? `${taken} accepted` : "dropped"}
          </span>
        </b>
        {open.length ? (
          <button
            type="button"
            className="button button-plain"
            aria-label={`Accept the moment at ${moment.atS === null ? place + 1 : stopwatchText(moment.atS)}`}
            onClick={() => review.decide(open, true)}
          >
            Accept
          </button>
        ) : (
          <button type="button" className="button button-plain" onClick={() => review.decide(indices, null)}>
            Open again
          </button>
        )}
      </div>
      <p className="mt-2 flex flex-wrap gap-2">
        {moment.items.map(({ item, index }) => (
          <Chip key={index} item={item} index={index} review={review} levels={levels} />
        ))}
      </p>
    </li>
  );
}
