import { z } from "zod";
import { errs, fromIssues, ok, type Result } from "#core/base";
import { testRecordSchema, type TestRecord } from "#core/records";

/** The open bundle: one or more tests with all they need, SI units. Described in docs/formats/calc.md. */
export const bundleSchema = z.object({
  format: z.literal("barometron bundle", { error: 'A bundle says "format": "barometron bundle".' }),
  version: z.literal(1, { error: "This reads version 1 of the bundle." }),
  tests: z.array(testRecordSchema).min(1, "A bundle holds at least one test."),
});
export type Bundle = z.infer<typeof bundleSchema>;

/** Checks a parsed JSON value against the bundle's schema. */
export function readBundle(value: unknown): Result<Bundle> {
  const parsed = bundleSchema.safeParse(value);
  return parsed.success ? ok(parsed.data) : errs(fromIssues(parsed.error.issues));
}

/** Writes tests as a bundle. */
export function writeBundle(tests: readonly TestRecord[]): Bundle {
  return { format: "barometron bundle", version: 1, tests: [...tests] };
}
