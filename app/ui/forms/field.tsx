import { withReadersDecimals } from "#core/base";
import type { FieldMetadata } from "@conform-to/react";
import { useState, type ReactNode } from "react";

interface FieldProps {
  readonly field: FieldMetadata<unknown>;
  readonly label: string;
  readonly hint?: string;
  /** The value shown is an assumed default: drawn in pencil until typed over or confirmed. */
  readonly pencil?: boolean;
  readonly className?: string;
  /** It cannot be left empty: said beside its label. */
  readonly needed?: boolean;
}

interface Described {
  readonly id: string;
  readonly name: string;
  readonly "aria-invalid"?: true;
  readonly "aria-describedby"?: string;
}

function described(field: FieldMetadata<unknown>, hint: string | undefined): Described {
  const by = [field.errors?.length ? field.errorId : "", hint ? field.descriptionId : ""]
    .filter(Boolean)
    .join(" ");
  return {
    id: field.id,
    name: field.name,
    ...(field.errors?.length ? { "aria-invalid": true as const } : {}),
    ...(by ? { "aria-describedby": by } : {}),
  };
}

function Around({
  field,
  label,
  hint,
  className,
  needed = false,
  children,
}: FieldProps & { readonly children: ReactNode }) {
  return (
    <div className={className}>
      <label htmlFor={field.id} className={`mb-1 block text-sm font-medium ${needed ? "needed" : ""}`}>
        {label}
      </label>
      {children}
      {field.errors?.length ? (
        <p id={field.errorId} className="mt-1 text-sm text-rust">
          {field.errors.join(" ")}
        </p>
      ) : null}
      {hint ? (
        <p id={field.descriptionId} className="mt-1 text-sm text-quiet">
          {withReadersDecimals(hint)}
        </p>
      ) : null}
    </div>
  );
}

const initial = (field: FieldMetadata<unknown>) =>
  typeof field.initialValue === "string" ? field.initialValue : "";

interface TextFieldProps extends FieldProps {
  readonly type?: "text" | "date" | "time";
  readonly inputMode?: "decimal" | "numeric" | "text";
  readonly autoFocus?: boolean;
  readonly list?: string;
  readonly placeholder?: string;
}

/** A line of text, with its error beside it. A pencil default is dashed and italic until a person types or confirms it. */
export function TextField({
  type = "text",
  inputMode,
  autoFocus,
  list,
  placeholder,
  pencil = false,
  ...around
}: TextFieldProps) {
  const [inPencil, setInPencil] = useState(pencil);
  const { field } = around;
  return (
    <Around {...around}>
      <div className="flex gap-1">
        <input
          {...described(field, around.hint)}
          aria-required={around.needed || undefined}
          key={field.key}
          type={type}
          inputMode={inputMode}
          autoFocus={autoFocus}
          autoComplete="off"
          list={list}
          placeholder={placeholder && withReadersDecimals(placeholder)}
          defaultValue={initial(field)}
          onInput={() => setInPencil(false)}
          className={`input ${inPencil ? "input-pencil" : ""}`}
        />
        {inPencil ? (
          <Confirm name={field.name} label={around.label} onConfirm={() => setInPencil(false)} />
        ) : null}
      </div>
    </Around>
  );
}

function Confirm({
  name,
  label,
  onConfirm,
}: {
  readonly name: string;
  readonly label: string;
  readonly onConfirm: () => void;
}) {
  return (
    <>
      <input type="hidden" name="pencil" value={name} />
      <button
        type="button"
        className="button button-plain"
        onClick={onConfirm}
        aria-label={`Confirm ${label}`}
        title="Assumed. Confirm it, or type your own."
      >
        confirm
      </button>
    </>
  );
}

interface SelectFieldProps extends FieldProps {
  readonly options: readonly { readonly value: string; readonly label: string }[];
}

/** A choice among a few. */
export function SelectField({ options, pencil = false, ...around }: SelectFieldProps) {
  const [inPencil, setInPencil] = useState(pencil);
  const { field } = around;
  return (
    <Around {...around}>
      <div className="flex gap-1">
        <select
          {...described(field, around.hint)}
          key={field.key}
          defaultValue={initial(field)}
          onChange={() => setInPencil(false)}
          className={`input ${inPencil ? "input-pencil" : ""}`}
        >
          {options.map(({ value, label }) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
        {inPencil ? (
          <Confirm name={field.name} label={around.label} onConfirm={() => setInPencil(false)} />
        ) : null}
      </div>
    </Around>
  );
}

/** A yes or no. */
export function TickField({ field, label, hint, className }: FieldProps) {
  return (
    <div className={className}>
      <label htmlFor={field.id} className="flex min-h-10 items-center gap-2">
        <input
          {...described(field, hint)}
          key={field.key}
          type="checkbox"
          defaultChecked={initial(field) === "on"}
          className="size-5 accent-spruce"
        />
        {label}
      </label>
      {field.errors?.length ? (
        <p id={field.errorId} className="text-sm text-rust">
          {field.errors.join(" ")}
        </p>
      ) : null}
      {hint ? (
        <p id={field.descriptionId} className="text-sm text-quiet">
          {withReadersDecimals(hint)}
        </p>
      ) : null}
    </div>
  );
}

interface AreaFieldProps extends FieldProps {
  readonly rows?: number;
}

/** Several lines of text. */
export function AreaField({ rows = 3, ...around }: AreaFieldProps) {
  const { field } = around;
  return (
    <Around {...around}>
      <textarea
        {...described(field, around.hint)}
        key={field.key}
        rows={rows}
        defaultValue={initial(field)}
        className="input py-1.5"
      />
    </Around>
  );
}
