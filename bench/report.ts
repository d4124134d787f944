/** Prints one figure, also as a multiple of the yardstick; says whether it keeps its limit. */
export type Report = (what: string, ms: number, limit?: number) => boolean;

export function reporter(unit: number): Report {
  return (what, ms, limit) => {
    const fine = limit === undefined || ms <= limit;
    const verdict = limit === undefined ? "" : `${fine ? "within" : "OVER"} ${limit} ms`;
    const figures = `${ms.toFixed(1).padStart(9)} ms ${(ms / unit).toFixed(2).padStart(8)} x`;
    process.stdout.write(`${what.padEnd(58)} ${figures}  ${verdict}\n`);
    return fine;
  };
}
