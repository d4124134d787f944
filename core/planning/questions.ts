import { there } from "#core/base";
/** What a test can be asked, one question at a time, and the methods that answer it, best first. */
export const QUESTION_IDS = [
  "claim",
  "throttle",
  "levels",
  "change",
  "thrift",
  "climb",
  "vertical",
  "largerPack",
  "packSound",
] as const;
export type QuestionId = (typeof QUESTION_IDS)[number];

export interface Question {
  readonly id: QuestionId;
  readonly asks: string;
  /** Names of templates. */
  readonly methods: readonly string[];
}

export const QUESTIONS: readonly Question[] = [
  { id: "claim", asks: "Does it reach its claim?", methods: ["Run-down", "Part charge", "Commute week"] },
  {
    id: "throttle",
    asks: "How far does it go on the throttle alone?",
    methods: ["Throttle run-down", "Throttle part charge", "Steady current"],
  },
  {
    id: "levels",
    asks: "What does each assist level cost?",
    methods: ["Levels A B B A", "Steady current", "Part charge"],
  },
  {
    id: "change",
    asks: "What does a tyre, rider, load, light, pressure or temperature cost?",
    methods: ["Sections A B B A", "Fixed course, volts", "Twins"],
  },
  {
    id: "thrift",
    asks: "Which bike wastes least?",
    methods: ["Fixed course, volts", "Part charge", "Twins"],
  },
  { id: "climb", asks: "How does it climb?", methods: ["Hill trial", "Sections A B B A"] },
  {
    id: "vertical",
    asks: "How much climbing does a charge hold?",
    methods: ["Vertical loops", "Part charge"],
  },
  {
    id: "largerPack",
    asks: "Would the larger pack pay?",
    methods: ["Part charge", "Run-down", "Bench discharge"],
  },
  { id: "packSound", asks: "Is the pack still sound?", methods: ["Bench discharge", "Run-down"] },
];

export function questionOf(id: QuestionId): Question {
  return there(QUESTIONS.find((question) => question.id === id));
}
