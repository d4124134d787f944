export { answer, answerText } from "./answer.ts";
export {} from "./calculations.ts";
