export { decodeText } from "./text.ts";
export { COLUMN_FIELDS, COLUMNS, readHeading, type ColumnField } from "./columns.ts";
export {
  guessColumns,
  readCheckIns,
  readTable,
  type ColumnChoice,
  type ImportedRow,
  type ImportOptions,
  type Table,
} from "./checkIns.ts";
export { readGpx } from "./gpx.ts";
export { readBundle, writeBundle, type Bundle } from "./bundle.ts";
