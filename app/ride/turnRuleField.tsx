import { useState } from "react";
import { readTurnRule, type WatchedRule } from "#core/live";
import { useSpoken } from "#ui/system";

interface TurnRuleFieldProps {
  /** The rule that is watched, as it was typed; empty without one. */
  readonly text: string;
  readonly watched: WatchedRule | null;
  readonly onRule: (text: string) => void;
}

/** The rider's own rule for turning round, watched with the rest. */
export function TurnRuleField({ text, watched, onRule }: TurnRuleFieldProps) {
  const say = useSpoken();
  const [problem, setProblem] = useState("");
  return (
    <div className="grid gap-2">
      {watched ? (
        <p
          role={watched.reached ? "alert" : undefined}
          className={`border-l-4 bg-sheet px-4 py-2 ${watched.reached ? "border-rust font-bold" : "border-spruce"}`}
        >
          {say(watched.sentence)}
        </p>
      ) : null}
      <details>
        <summary className="cursor-pointer py-1 text-sm text-quiet">
          {text ? "Change your own turn rule" : "A turn rule of your own"}
        </summary>
        <form
          className="mt-1 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            const typed = String(new FormData(event.currentTarget).get("rule") ?? "").trim();
            if (!readTurnRule(typed))
              return setProblem("Type for example half, mile 18, 37 V at rest or 2 bars.");
            setProblem("");
            onRule(typed);
          }}
        >
          <label className="grid gap-1 text-sm font-medium" htmlFor="turn-rule">
            Turn at
            <input
              id="turn-rule"
              name="rule"
              defaultValue={text}
              autoComplete="off"
              placeholder="half, mile 18, 37 V at rest"
              aria-describedby={problem ? "turn-rule-problem" : undefined}
              className="input min-h-12"
            />
          </label>
          <button type="submit" className="button min-h-12">
            Watch it
          </button>
          {problem ? (
            <p id="turn-rule-problem" role="alert" className="basis-full text-sm text-rust">
              {problem}
            </p>
          ) : null}
        </form>
      </details>
    </div>
  );
}
