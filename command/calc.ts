import { readFileSync } from "node:fs";
import { answerText } from "#core/calc";

/** `calc FILE.json` or `calc -`: one answer a line; exit code 1 when any of them is an error. */
export function calc(file: string | undefined): number {
  if (file === undefined) {
    process.stderr.write("Usage: ./barometron calc FILE.json, or - for standard input.\n");
    return 2;
  }
  let text: string;
  try {
    text = readFileSync(file === "-" ? 0 : file, "utf8");
  } catch {
    process.stdout.write(
      `${JSON.stringify({ error: { code: "no-file", path: file, sentence: `There is no file ${file} that can be read.` } })}\n`,
    );
    return 1;
  }
  const answers = answerText(text);
  process.stdout.write(answers.map(({ value }) => `${JSON.stringify(value)}\n`).join(""));
  return answers.every(({ ok }) => ok) ? 0 : 1;
}
