import { GROUNDS } from "#core/fields";
import { unitOf } from "#core/base";
import { DIRECTIONS } from "#core/records";
import { Choose, Line } from "#ui/forms/lines";
import { useSystem } from "#ui/system";

interface SweepGridProps {
  readonly rows: number;
  readonly levels: readonly string[];
  readonly onMore: () => void;
}

const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));
const COLUMNS =
  "grid-cols-3 md:grid-cols-[minmax(0,7fr)_minmax(0,8fr)_minmax(0,6fr)_minmax(0,7fr)_minmax(0,6fr)_minmax(0,5fr)]";

/** The grid to fill: a row for each level, ground and way; on a phone each in two lines. */
export function SweepGrid({ rows, levels, onMore }: SweepGridProps) {
  const system = useSystem();
  return (
    <div>
      <div className={`hidden gap-x-2 pb-1 text-sm text-quiet md:grid ${COLUMNS}`} aria-hidden>
        {["Level", "Ground", "Way", `Speed, ${unitOf("speed", system)}`, "Amps", "Volts"].map((name) => (
          <span key={name}>{name}</span>
        ))}
      </div>
      <ol className="grid gap-y-2">
        {Array.from({ length: rows }, (_, i) => (
          <li
            key={i}
            className={`grid gap-x-2 gap-y-1 border-b border-rule pb-2 md:border-0 md:pb-0 [&_select]:px-1.5 [&_select]:text-sm ${COLUMNS}`}
          >
            <Choose
              name={`rows.${i}.level`}
              label={`Level, row ${i + 1}`}
              bare
              options={same(["", ...levels])}
            />
            <Choose name={`rows.${i}.ground`} label={`Ground, row ${i + 1}`} bare options={same(GROUNDS)} />
            <Choose
              name={`rows.${i}.direction`}
              label={`Way, row ${i + 1}`}
              bare
              options={same(DIRECTIONS)}
            />
            <Line
              name={`rows.${i}.speed`}
              label={`Speed, row ${i + 1}`}
              bare
              inputMode="decimal"
              assumed={unitOf("speed", system)}
            />
            <Line name={`rows.${i}.amps`} label={`Amps, row ${i + 1}`} bare assumed="6-7 A" />
            <Line
              name={`rows.${i}.volts`}
              label={`Volts, row ${i + 1}`}
              bare
              inputMode="decimal"
              assumed="V"
            />
          </li>
        ))}
      </ol>
      <button type="button" className="button button-plain mt-1" onClick={onMore}>
        one more row
      </button>
    </div>
  );
}
