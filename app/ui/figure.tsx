import { writeUncertain, type DimensionName, type Estimate } from "#core/base";
import { useSystem } from "#ui/system";

interface FigureProps {
  readonly value: Estimate;
  readonly dimension: DimensionName;
  /** Assumed or reckoned rather than measured: italic. */
  readonly pencil?: boolean;
  readonly large?: boolean;
}

/** A figure with its plus-or-minus and unit, rounded to what the error supports. */
export function Figure({ value, dimension, pencil = false, large = false }: FigureProps) {
  const { value: text, spread, unit } = writeUncertain(value, dimension, useSystem());
  return (
    <span className={pencil ? "pencil" : ""}>
      <span className={large ? "text-5xl leading-none font-bold" : ""}>{text}</span>
      <span className={large ? "text-xl" : ""}> {spread}</span>
      <span className={large ? "text-sm text-quiet" : "text-quiet"}> {unit}</span>
      {pencil ? <span className="sr-only"> (assumed or worked out)</span> : null}
    </span>
  );
}
