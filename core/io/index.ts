export { writeCsv } from "./csv.ts";
export { writeCaptions, writeChapters } from "./subtitles.ts";
export { readSpoken, spokenFormatOf, SPOKEN_FORMATS, type Spoken, type SpokenFormat } from "./spoken.ts";
export { decodeText } from "./text.ts";
export { COLUMN_FIELDS, columnOf, COLUMNS, readHeading, type ColumnField } from "./columns.ts";
export { guessColumns, readTable, type ColumnChoice, type Table } from "./table.ts";
export { readCheckIns, type ImportedRow, type ImportOptions, type RowCheck } from "./checkIns.ts";
export { readGpx } from "./gpx.ts";
export { readFit } from "./fit.ts";
export { readTcx } from "./tcx.ts";
export { readBundle, writeBundle } from "./bundle.ts";
export { joinTracks } from "./joined.ts";
export { readLogger } from "./logger.ts";
export {
  chosenColumns,
  columnsOfMeter,
  METER_FIELDS,
  METER_LABELS,
  type MeterColumns,
  type MeterField,
} from "./meterColumns.ts";
export {
  FILE_FORMATS,
  formatNamed,
  formatOf,
  type FileAbout,
  type FileContents,
  type FormatId,
} from "./formats.ts";
export { readCourseGpx, writeCourseGpx, type CourseRead } from "./courseGpx.ts";
export { fileName } from "./fileName.ts";
export { writeTrackGpx } from "./trackGpx.ts";
export { readImage, type ReadImage } from "./image.ts";
