import { choicesOf, type RecordField } from "#core/fields";
import { Area, Choose, Line, Tick, Ticks, useDeclared } from "#ui/forms/lines";

interface Option {
  readonly value: string;
  readonly label: string;
}

interface LiveFieldProps {
  /** The field's key, after those of the records it stands in: "method.compare.a". */
  readonly name: string;
  /** Its label and hint, where they are others than declared. */
  readonly label?: string;
  readonly hint?: string;
  /** What is assumed while nothing is typed: in pencil. */
  readonly assumed?: string;
  /** Choices that depend on the desk: the field is then a choice among them. */
  readonly options?: readonly Option[];
  readonly className?: string;
  /** The label is read out only: the column's heading shows it. */
  readonly bare?: boolean;
}

/** What a choice offers: the values of its schema by what they are called, and none first. */
export function optionsOf(field: RecordField): readonly Option[] {
  const { typed } = field;
  const says = typed.as === "choice" || typed.as === "ticks" ? typed.says : undefined;
  const none = typed.as === "choice" ? typed.none : undefined;
  const all = choicesOf(field).map((value) => ({ value, label: says?.[value] ?? value }));
  return none === undefined ? all : [{ value: "", label: none }, ...all];
}

/** A declared field in a form that keeps itself: the input its declaration asks for. */
export function LiveField({ name, options, assumed, ...more }: LiveFieldProps) {
  const field = useDeclared(name);
  if (!field) throw new Error(`The form has no field ${name}.`);
  const { typed } = field;
  const className = more.className ?? (field.wide ? "col-span-full" : undefined);
  const hint = more.hint ?? field.hint;
  const common = {
    name,
    label: more.label ?? field.label,
    ...(hint !== undefined && { hint }),
    ...(className !== undefined && { className }),
    ...(more.bare && { bare: true }),
  };
  if (options || typed.as === "choice") return <Choose {...common} options={options ?? optionsOf(field)} />;
  if (typed.as === "ticks") return <Ticks {...common} options={optionsOf(field)} />;
  if (typed.as === "tick") return <Tick name={name} label={common.label} />;
  if (typed.as === "list" || typed.as === "lines") return <Area {...common} />;
  const inputMode = typed.as === "number" ? (typed.whole ? "numeric" : "decimal") : undefined;
  return (
    <Line
      {...common}
      type={typed.as === "day" ? "date" : typed.as === "clock" ? "time" : "text"}
      {...(inputMode && { inputMode })}
      {...(assumed !== undefined && { assumed })}
    />
  );
}
