/**
 * Errors as values. Bad input yields a Problem with a stable code, the place it was found and a sentence that tells a
 * person what to type; only a bug throws.
 */
export interface Problem {
  /** Stable, for programs: "percent-over-100". */
  readonly code: string;
  /** Where: a field name, "row 4, column percent", or a JSON path such as "readings.2.mark". */
  readonly path: string;
  /** For the person: what is wrong and what to type instead. */
  readonly sentence: string;
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problems: readonly Problem[] };

/** Wraps a value. Example: `ok(3).value === 3`. */
export function ok<T>(value: T): Result<T> {
  return { ok: true, value };
}

/** A result that failed for one reason. */
export function err<T>(code: string, path: string, sentence: string): Result<T> {
  return { ok: false, problems: [{ code, path, sentence }] };
}

/** A result that failed for several reasons. */
export function errs<T>(problems: readonly Problem[]): Result<T> {
  return { ok: false, problems };
}

interface IssueLike {
  readonly code?: string | undefined;
  readonly path: readonly PropertyKey[];
  readonly message: string;
}

/** Turns the issues of a failed Zod parse into problems, one each, with dotted paths. */
export function fromIssues(issues: readonly IssueLike[]): readonly Problem[] {
  return issues.map((issue) => ({
    code: `input-${issue.code ?? "invalid"}`,
    path: issue.path.map(String).join("."),
    sentence: issue.message,
  }));
}
export { hasKey, schemaBy } from "./schemaBy.ts";
