/** Prints one figure, also as a multiple of the yardstick; says whether it keeps its limit. */
export type Report = (what: string, ms: number, limit?: number) => boolean;

/** The yardstick on the machine the limits were set on, ms: a limit is a multiple of it, and moves with the machine. */
const REFERENCE_MS = 33;

/** @param unit the yardstick on this machine, now, ms */
export function reporter(unit: number): Report {
  return (what, ms, limit) => {
    const most = limit === undefined ? Infinity : limit / REFERENCE_MS;
    const fine = ms / unit <= most;
    const verdict = limit === undefined ? "" : `${fine ? "within" : "OVER"} ${most.toFixed(1)} x`;
    const figures = `${ms.toFixed(1).padStart(9)} ms ${(ms / unit).toFixed(2).padStart(8)} x`;
    process.stdout.write(`${what.padEnd(62)} ${figures}  ${verdict}\n`);
    return fine;
  };
}
