export { answer, answerText, testFigures, type Answer } from "./answer.ts";
export { CALCULATIONS } from "./calculations.ts";
