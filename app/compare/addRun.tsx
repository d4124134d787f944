import { Form } from "react-router";
import { dayText } from "#core/base";
import { SearchList } from "#ui/overlays/searchList";
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
  const choices = others.map(({ id, bike, title, day }) => ({
    value: id,
    label: `${bike}, ${title}, ${dayText(day)}`,
  }));
  return (
    <div className="mt-3 grid gap-2">
      {(["a", "b"] as const).map((side) => (
        <Form key={side} className="flex gap-2">
          {kept}
          <SearchList
            name={side}
            label={`Another run of ${side.toUpperCase()}`}
            prompt={`another run of ${side.toUpperCase()}`}
            choices={choices}
          />
          <button className="button button-plain">Add</button>
        </Form>
      ))}
    </div>
  );
}
