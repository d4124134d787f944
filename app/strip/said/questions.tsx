import type { Question } from "#core/narration";
import type { Review } from "./useReview";

interface QuestionsProps {
  readonly questions: readonly Question[];
  readonly review: Pick<Review, "answers" | "answer">;
}

/** What only the person who was there can tell: told, or answered by a press. */
export function Questions({ questions, review: { answers: given, answer } }: QuestionsProps) {
  return questions.map(({ asks, answers }, i) => (
    <section key={i} className="sheet border-l-4 border-l-ochre p-3" aria-label="A question">
      <b>{asks}</b>
      {answers.length ? (
        <p className="mt-2 flex flex-wrap gap-2">
          {answers.map((says, at) => (
            <button
              key={says}
              type="button"
              aria-pressed={given.get(i) === at}
              className={`button ${given.get(i) === at ? "button-main" : ""}`}
              onClick={() => answer(i, at)}
            >
              {says}
            </button>
          ))}
        </p>
      ) : null}
    </section>
  ));
}
