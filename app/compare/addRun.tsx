import { Form } from "react-router";
import { dayText } from "#app/ui/testLine";
import type { PairTest } from "./pairPanel";

interface AddRunProps {
  readonly tests: readonly PairTest[];
  /** Other tests of the same bikes. */
  readonly others: readonly {
    readonly id: string;
    readonly bike: string;
    readonly title: string;
    readonly day: string;
  }[];
}

export const sideName = (side: PairTest["side"]) => (side === "A" ? "a" : side === "B" ? "b" : "runs");

/** One more test for a side: a set of four is ridden A B B A. */
export function AddRun({ tests, others }: AddRunProps) {
  if (others.length === 0) return null;
  const kept = tests.map(({ id, side }) => <input key={id} type="hidden" name={sideName(side)} value={id} />);
  return (
    <div className="mt-3 grid gap-2">
      {(["a", "b"] as const).map((side) => (
        <Form key={side} className="flex gap-2">
          {kept}
          <select
            name={side}
            className="input min-w-0 flex-1 text-sm"
            aria-label={`Another run of ${side.toUpperCase()}`}
            defaultValue=""
          >
            <option value="" disabled>
              another run of {side.toUpperCase()}
            </option>
            {others.map(({ id, bike, title, day }) => (
              <option key={id} value={id}>
                {bike}, {title}, {dayText(day)}
              </option>
            ))}
          </select>
          <button className="button button-plain">Add</button>
        </Form>
      ))}
    </div>
  );
}
