export { answer, answerText, type Answer } from "./answer.ts";
export {} from "./calculations.ts";
