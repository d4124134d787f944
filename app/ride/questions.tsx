import { STRIKE_FIELDS, type EntryBody, type StrikeField } from "#core/ride/log";
import type { OddAnswer, Odd } from "#core/live";
import type { TestResults } from "#core/analysis";
import { useSpoken } from "#ui/system";

interface QuestionsProps {
  /** What the log itself makes odd. */
  readonly odd: readonly Odd[];
  /** What the ledger makes odd. */
  readonly flags: TestResults["flags"];
  readonly onAnswer: (answer: OddAnswer) => void;
}

const isStrikeField = (field: string | null): field is StrikeField =>
  STRIKE_FIELDS.some((known) => known === field);

/** Readings that want an answer: one tap each, and never in the way. */
export function Questions({ odd, flags, onAnswer }: QuestionsProps) {
  const say = useSpoken();
  const all: readonly Odd[] = [
    ...odd,
    ...flags.map(({ rootId, field, sentence }) => {
      const known = isStrikeField(field) ? field : null;
      const body: EntryBody = { kind: "strike", target: rootId, ...(known && { field: known }) };
      return { rootId, field: known, sentence, answers: [{ words: "Set it aside", body, atS: null }] };
    }),
  ];
  return all.map(({ rootId, field, sentence, answers }) => (
    <div key={`${rootId} ${field}`} className="border-l-4 border-ochre-fill bg-sheet px-4 py-3">
      <p>{say(sentence)}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        {answers.map((answer) => (
          <button key={answer.words} type="button" className="button" onClick={() => onAnswer(answer)}>
            {answer.words}
          </button>
        ))}
      </div>
    </div>
  ));
}
