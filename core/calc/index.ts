export { answer, answerText, type Answer } from "./answer.ts";
export { CALCULATIONS } from "./calculations.ts";
