import { METER_FIELDS, METER_LABELS, type MeterField } from "#core/io";
import type { TableLook } from "#app/services/recordings/lookAt";

interface MeterTableProps {
  readonly table: TableLook;
  readonly onColumns: (columns: readonly (MeterField | null)[]) => void;
}

/** The first rows of a meter's file, and what each of its columns is. */
export function MeterTable({ table: { headings, rows, columns }, onColumns }: MeterTableProps) {
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Columns of the file">
      <table className="table">
        <caption className="sr-only">The first rows of the file, with what each column holds</caption>
        <thead>
          <tr>
            {headings.map((heading, i) => (
              <th key={`${heading}/${i}`} scope="col" className="align-top">
                <span className="block font-bold text-ink">{heading || "(no name)"}</span>
                <select
                  value={columns[i] ?? ""}
                  aria-label={`Column ${heading || i + 1} is`}
                  className={`input mt-1 min-w-28 ${columns[i] ? "" : "input-pencil"}`}
                  onChange={(event) => {
                    const field = METER_FIELDS.find((each) => each === event.target.value) ?? null;
                    // Each is one column: the one that was it before is left out.
                    onColumns(columns.map((each, k) => (k === i ? field : each === field ? null : each)));
                  }}
                >
                  <option value="">leave out</option>
                  {METER_FIELDS.map((field) => (
                    <option key={field} value={field}>
                      {METER_LABELS[field]}
                    </option>
                  ))}
                </select>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((cells, r) => (
            <tr key={r}>
              {headings.map((_, i) => (
                <td key={i} className="whitespace-nowrap">
                  {cells[i]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
