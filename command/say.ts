/** One line for the person at the terminal. On standard error, so that output meant for programs stays clean. */
export function say(line: string): void {
  process.stderr.write(`${line}\n`);
}
