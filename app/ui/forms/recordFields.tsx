import type { FieldMetadata } from "@conform-to/react";
import type { ReactNode } from "react";
import type { RecordField, RecordFields } from "#core/fields";
import { AreaField, SelectField, TextField, TickField } from "#ui/forms/field";
import { optionsOf } from "#ui/forms/liveField";

interface Option {
  readonly value: string;
  readonly label: string;
}

interface RecordFieldsProps {
  readonly of: RecordFields;
  /** The form's own fields, by key. */
  readonly fields: Readonly<Record<string, FieldMetadata<unknown>>>;
  /** Keys of fields that still hold an assumption. */
  readonly pencil?: readonly string[];
  /** The field the cursor stands in at first. */
  readonly focus?: string | undefined;
  /** Choices that depend on the desk, by key: the field is then a choice among them. */
  readonly options?: Readonly<Record<string, readonly Option[]>>;
  /** What is said under the heading of a part. */
  readonly notes?: Readonly<Record<string, string>>;
  /** What stands behind a part, by its heading: choices that are no fields of the record. */
  readonly behind?: Readonly<Record<string, ReactNode>>;
}

interface OneFieldProps {
  readonly of: RecordField;
  readonly field: FieldMetadata<unknown>;
  readonly pencil: boolean;
  readonly focus: boolean;
  readonly options: readonly Option[] | undefined;
}

function OneField({ of, field, pencil, focus, options }: OneFieldProps) {
  const { typed, label, hint, wide } = of;
  const common = {
    ...{ field, label, needed: !options && isNeeded(of) },
    ...(hint === undefined ? {} : { hint }),
    ...(wide ? { className: "sm:col-span-2" } : {}),
  };
  if (options || typed.as === "choice")
    return <SelectField {...common} pencil={pencil} options={options ?? optionsOf(of)} />;
  if (typed.as === "tick") return <TickField {...common} className={common.className ?? "sm:pt-6"} />;
  if (typed.as === "lines" || (typed.as === "own" && typed.lines))
    return <AreaField {...common} rows={typed.as === "own" ? (typed.lines ?? 3) : 3} />;
  const inputMode = typed.as === "number" ? (typed.whole ? "numeric" : "decimal") : undefined;
  return (
    <TextField
      {...common}
      pencil={pencil}
      autoFocus={focus}
      type={typed.as === "day" ? "date" : "text"}
      {...(inputMode && { inputMode })}
    />
  );
}

/** Whether a record cannot be without a field: one that was left empty is then asked for. */
function isNeeded({ typed, schema }: RecordField): boolean {
  if (typed.as === "tick" || typed.as === "choice" || ("empty" in typed && typed.empty !== undefined))
    return false;
  return !schema.safeParse(typed.as === "words" ? "" : typed.as === "lines" ? [] : undefined).success;
}

/** All fields of a record in the parts they are declared in. */
export function RecordFieldset({
  of,
  fields,
  pencil = [],
  focus,
  options = {},
  notes = {},
  behind = {},
}: RecordFieldsProps) {
  const parts = [...new Set(Object.values(of).map(({ under = "" }) => under))];
  return parts.map((part) => (
    <fieldset key={part} className="min-w-0">
      {part ? (
        <legend className="mb-3">
          <h2>{part}</h2>
        </legend>
      ) : null}
      <div className="grid gap-4 sm:grid-cols-2">
        {notes[part] ? <p className="text-sm text-quiet sm:col-span-2">{notes[part]}</p> : null}
        {Object.entries(of).map(([key, field]) => {
          const shown = fields[key];
          return (field.under ?? "") === part && shown ? (
            <OneField
              key={key}
              of={field}
              field={shown}
              pencil={pencil.includes(key)}
              focus={focus === key}
              options={options[key]}
            />
          ) : null;
        })}
        {behind[part]}
      </div>
    </fieldset>
  ));
}
