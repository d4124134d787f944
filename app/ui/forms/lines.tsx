import { withReadersDecimals } from "#core/base";
import type { RecordField, RecordFields } from "#core/fields";
import { createContext, use, useId, useState, type ReactNode } from "react";

/** What a live form shows: texts as they were when it opened, and the sentences about them by field name. */
interface LiveForm {
  readonly values: Readonly<Record<string, string>>;
  readonly problems: Readonly<Record<string, string>>;
  /** What its inputs are, where they are fields of a record. */
  readonly of?: RecordFields;
}

const LiveFormContext = createContext<LiveForm>({ values: {}, problems: {} });

/** The declared field of an input's name, looked up in the records within as well: "method.compare.a", "legs.2.ground". */
export function useDeclared(name: string): RecordField | undefined {
  const { of = {} } = use(LiveFormContext);
  return declaredIn(of, name.split("."));
}

function declaredIn(fields: RecordFields, [key = "", ...rest]: readonly string[]): RecordField | undefined {
  const field = fields[key];
  if (rest.length === 0 || field?.typed.as !== "record") return field;
  // The records of a list are numbered.
  return declaredIn(field.typed.of, /^\d+$/.test(rest[0]!) ? rest.slice(1) : rest);
}

export function LiveFields({ children, ...form }: LiveForm & { readonly children: ReactNode }) {
  return <LiveFormContext value={form}>{children}</LiveFormContext>;
}

interface FieldProps {
  readonly name: string;
  readonly label: string;
  readonly hint?: string;
  readonly className?: string;
  /** The label is read out only: the column's heading shows it. */
  readonly bare?: boolean;
}

function useField({ name, hint }: FieldProps) {
  const { values, problems } = use(LiveFormContext);
  const id = useId();
  const problem = problems[name];
  const by = [problem ? `${id}-problem` : "", hint ? `${id}-hint` : ""].filter(Boolean).join(" ");
  return {
    id,
    value: values[name] ?? "",
    problem,
    described: {
      id,
      name,
      ...(problem ? { "aria-invalid": true as const } : {}),
      ...(by ? { "aria-describedby": by } : {}),
    },
  };
}

interface AroundProps extends FieldProps {
  readonly id: string;
  readonly problem: string | undefined;
  readonly children: ReactNode;
}

function Around({ id, problem, label, hint, className, bare, children }: AroundProps) {
  return (
    <div className={className}>
      <label htmlFor={id} className={bare ? "sr-only" : "mb-1 block text-sm font-medium"}>
        {label}
      </label>
      {children}
      {problem ? (
        <p id={`${id}-problem`} role="alert" className="mt-1 text-sm text-rust">
          {problem}
        </p>
      ) : null}
      {hint ? (
        <p id={`${id}-hint`} className="mt-1 text-sm text-quiet">
          {withReadersDecimals(hint)}
        </p>
      ) : null}
    </div>
  );
}

interface LineProps extends FieldProps {
  readonly type?: "text" | "date" | "time";
  readonly inputMode?: "decimal" | "numeric" | "text";
  /** What is assumed while nothing is typed: in pencil. */
  readonly assumed?: string;
}

/** A line of text. While it is empty it shows in pencil what is assumed. */
export function Line({ type = "text", inputMode, assumed, ...field }: LineProps) {
  const { id, value, problem, described } = useField(field);
  return (
    <Around {...field} id={id} problem={problem}>
      <input
        {...described}
        type={type}
        inputMode={inputMode}
        autoComplete="off"
        defaultValue={value}
        placeholder={assumed}
        className="input placeholder:text-ochre placeholder:italic"
      />
    </Around>
  );
}

interface ChooseProps extends FieldProps {
  readonly options: readonly { readonly value: string; readonly label: string }[];
}

export function Choose({ options, ...field }: ChooseProps) {
  const { id, value, problem, described } = useField(field);
  return (
    <Around {...field} id={id} problem={problem}>
      <select {...described} defaultValue={value} className="input">
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </Around>
  );
}

export function Area({ rows = 4, ...field }: FieldProps & { readonly rows?: number }) {
  const { id, value, problem, described } = useField(field);
  return (
    <Around {...field} id={id} problem={problem}>
      <textarea {...described} rows={rows} defaultValue={value} className="input py-1.5" />
    </Around>
  );
}

interface TicksProps {
  readonly name: string;
  readonly label: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  /** Those that are ticked at first; left out, the form's own. */
  readonly chosen?: readonly string[];
  readonly className?: string;
}

/** Several ticks under one name. */
export function Ticks({ name, label, options, chosen, className }: TicksProps) {
  const { values, problems } = use(LiveFormContext);
  const ticked = chosen ?? (values[name] ?? "").split("\n");
  return (
    <fieldset className={className}>
      <legend className="mb-1 text-sm font-medium">{label}</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {options.map((option) => (
          <label key={option.value} className="flex min-h-8 items-center gap-2">
            <input
              type="checkbox"
              name={name}
              value={option.value}
              defaultChecked={ticked.includes(option.value)}
              className="size-5 accent-spruce"
            />
            {option.label}
          </label>
        ))}
      </div>
      {problems[name] ? (
        <p role="alert" className="mt-1 text-sm text-rust">
          {problems[name]}
        </p>
      ) : null}
    </fieldset>
  );
}

/** A yes or no. */
export function Tick({ name, label }: { readonly name: string; readonly label: string }) {
  const { values } = use(LiveFormContext);
  return (
    <label className="flex min-h-10 items-center gap-2">
      <input
        type="checkbox"
        name={name}
        defaultChecked={values[name] === "on"}
        className="size-5 accent-spruce"
      />
      {label}
    </label>
  );
}

/** How many rows a list of inputs shows: those filled, and one more whenever the last is asked for. */
export function useRows(filled: number, spare: number) {
  const [rows, setRows] = useState(filled + spare);
  return { rows, more: () => setRows((count) => count + 1) };
}
