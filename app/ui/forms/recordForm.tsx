import type { SubmissionResult } from "@conform-to/react";
import type { ReactNode } from "react";
import type { z } from "zod";
import type { RecordFields } from "#core/fields";
import { RecordFieldset } from "#ui/forms/recordFields";
import { SaveForm } from "#ui/forms/saveForm";
import type { Texts } from "./record";

type FieldsetProps = Parameters<typeof RecordFieldset>[0];

interface RecordFormProps extends Pick<FieldsetProps, "pencil" | "focus" | "options" | "notes" | "behind"> {
  readonly of: RecordFields;
  readonly schema: z.ZodType;
  readonly values: Texts;
  readonly lastResult: SubmissionResult<string[]> | undefined;
  readonly save: string;
  readonly ways?: readonly (readonly [next: string, words: string])[];
  readonly back?: string;
  readonly hidden?: Readonly<Record<string, string>>;
  /** Version of the record as it was opened; a new one has none. */
  readonly version?: number | undefined;
  /** What stands between the fields and the button. */
  readonly children?: ReactNode;
}

/** The form of a record, made of its fields. */
export function RecordForm({
  of,
  pencil,
  focus,
  options,
  notes,
  behind,
  children,
  ...form
}: RecordFormProps) {
  const parts = { pencil, focus, options, notes, behind };
  const given = Object.fromEntries(Object.entries(parts).filter(([, value]) => value !== undefined));
  return (
    <SaveForm {...form} names={Object.keys(of)}>
      {(fields) => (
        <>
          <RecordFieldset of={of} fields={fields} {...given} />
          {children}
        </>
      )}
    </SaveForm>
  );
}
