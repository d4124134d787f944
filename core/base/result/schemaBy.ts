import { z } from "zod";

/**
 * A schema chosen by looking at the value, so that what is wrong is said at its own place; a plain union would only say
 * that none of its members fits.
 */
export function schemaBy<T>(pick: (value: unknown) => z.ZodType<T>) {
  return z.unknown().transform((value, context): T => {
    const parsed = pick(value).safeParse(value);
    if (parsed.success) return parsed.data;
    for (const { path, message } of parsed.error.issues)
      context.addIssue({ code: "custom", path: [...path], message });
    return z.NEVER;
  });
}

/**
 * Whether a value is an object with a key.
 *
 * @example hasKey({ pack: 1 }, "pack") === true
 */
export function hasKey(value: unknown, key: string): boolean {
  return typeof value === "object" && value !== null && key in value;
}
