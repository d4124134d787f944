import { choicesOf, type RecordField } from "#core/fields";
import { unitOf, type System } from "#core/base";
import { SWEEP_COLUMNS, SWEEP_ROW_FIELDS, type SweepColumn } from "#core/records";
import { Choose, Line } from "#ui/forms/lines";
import { useSystem } from "#ui/system";

interface SweepGridProps {
  readonly rows: number;
  readonly levels: readonly string[];
  readonly onMore: () => void;
}

const NAMES = Object.keys(SWEEP_COLUMNS) as readonly SweepColumn[];
const fieldOf = (name: SweepColumn): RecordField => SWEEP_ROW_FIELDS[SWEEP_COLUMNS[name]];

/** What stands in an empty cell: how it is typed, else its unit. */
const hintOf = ({ hint, typed }: RecordField, system: System): string =>
  hint ?? (typed.as === "quantity" ? unitOf(typed.dimension, system) : "");

const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));
const COLUMNS =
  "grid-cols-3 md:grid-cols-[minmax(0,7fr)_minmax(0,8fr)_minmax(0,6fr)_minmax(0,7fr)_minmax(0,6fr)_minmax(0,5fr)]";

/** The grid to fill: a row for each level, ground and way; on a phone each in two lines. */
export function SweepGrid({ rows, levels, onMore }: SweepGridProps) {
  const system = useSystem();
  return (
    <div>
      <div className={`hidden gap-x-2 pb-1 text-sm text-quiet md:grid ${COLUMNS}`} aria-hidden>
        {NAMES.map((name) => (
          <span key={name}>
            {fieldOf(name).label}
            {name === "speed" ? `, ${unitOf("speed", system)}` : ""}
          </span>
        ))}
      </div>
      <ol className="grid gap-y-2">
        {Array.from({ length: rows }, (_, i) => (
          <li
            key={i}
            className={`grid gap-x-2 gap-y-1 border-b border-rule pb-2 md:border-0 md:pb-0 [&_select]:px-1.5 [&_select]:text-sm ${COLUMNS}`}
          >
            {NAMES.map((name) => {
              const cell = { name: `rows.${i}.${name}`, label: `${fieldOf(name).label}, row ${i + 1}` };
              const words = name === "level" ? ["", ...levels] : choicesOf(fieldOf(name));
              return words.length ? (
                <Choose key={name} {...cell} bare options={same(words)} />
              ) : (
                <Line
                  key={name}
                  {...cell}
                  bare
                  inputMode={fieldOf(name).typed.as === "span" ? "text" : "decimal"}
                  assumed={hintOf(fieldOf(name), system)}
                />
              );
            })}
          </li>
        ))}
      </ol>
      <button type="button" className="button button-plain mt-1" onClick={onMore}>
        one more row
      </button>
    </div>
  );
}
