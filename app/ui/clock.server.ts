/** This machine's clock against UTC, "+01:00": the likely one of the desk, since it runs where it is used. */
export function clockOffset(nowMs: number): string {
  const minutes = -new Date(nowMs).getTimezoneOffset();
  const two = (value: number) => String(Math.abs(Math.trunc(value))).padStart(2, "0");
  return `${minutes < 0 ? "-" : "+"}${two(minutes / 60)}:${two(minutes % 60)}`;
}
