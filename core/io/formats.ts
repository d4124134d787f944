import { ok, type Result } from "#core/base";
import type { TelemetryRecord, TrackRecord } from "#core/records";
import { readFit } from "./fit.ts";
import { scanGpx } from "./gpx.ts";
import { readImage, type ReadImage } from "./image.ts";
import { readLogger } from "./logger.ts";
import { columnsOfMeter, isMeter, type MeterColumns } from "./meterColumns.ts";
import { guessColumns, readTable, type Table } from "./table.ts";
import { readSpoken, spokenFormatOf, type Spoken } from "./spoken.ts";
import { recordedOf, type Recorded } from "./recorded.ts";
import { readTcx } from "./tcx.ts";
import { decodeText } from "./text.ts";

/** What a file held; of several kinds where one file has them. */
export interface FileContents {
  readonly track?: TrackRecord;
  /** What the recorder calls what it recorded. */
  readonly sport?: string;
  readonly telemetry?: TelemetryRecord;
  /** What was said over a ride, whose lines a person goes through before they are kept. */
  readonly spoken?: readonly Spoken[];
  readonly photograph?: ReadImage;
  /** Notes, whose columns a person looks over before they are kept. */
  readonly table?: Table;
}

/** What is known of a file beside its bytes. */
export interface FileAbout {
  readonly name: string;
  /** Name of the logger whose samples it may hold. */
  readonly logger: string;
  /** When the ride started, s since the epoch; null when nobody noted it. */
  readonly rideStartS: number | null;
  /** The zone of the ride's clock, for times that name none. */
  readonly zone: string;
  /** What each column of a meter's file is, where somebody chose. */
  readonly columns?: MeterColumns;
  /** A meter writes what is drawn with a minus. */
  readonly drawnIsMinus?: boolean;
}

/** A kind of file that a ride takes. A new one is its reader, and a line in the registry below. */
export interface FileFormat {
  readonly id: string;
  /** What was found, for a person. */
  readonly name: string;
  /** Whether a file begins like one. */
  readonly sniff: (head: string) => boolean;
  /** All that is in it, or located errors. */
  readonly read: (bytes: Uint8Array, about: FileAbout) => Result<FileContents>;
}

/** A reader of text. */
const fromText =
  (read: (text: string, about: FileAbout) => Result<FileContents>): FileFormat["read"] =>
  (bytes, about) => {
    const text = decodeText(bytes, "file");
    return text.ok ? read(text.value, about) : text;
  };

/** What was read, under the name it has among a file's contents. */
const as = <Key extends keyof FileContents>(
  key: Key,
  read: Result<NonNullable<FileContents[Key]>>,
): Result<FileContents> => (read.ok ? ok({ [key]: read.value }) : read);

/** A recording under the file's name, where it has none of its own. */
const asRecording = (read: Result<Recorded>, { name }: FileAbout): Result<FileContents> =>
  read.ok
    ? ok({
        track: { ...read.value.track, name: read.value.track.name || name },
        ...(read.value.sport !== "" && { sport: read.value.sport }),
      })
    : read;

/** How much of a file is looked at: bytes, and rows of a table. */
const HEAD_BYTES = 64 * 1024;
const HEAD_ROWS = 50;

/** The first rows of a table; a row that the look cut in two is left out. */
function tableOf(head: string) {
  const lines = head.split("\n");
  const whole = lines.length > 2 ? lines.slice(0, -1) : lines;
  const table = readTable(whole.slice(0, HEAD_ROWS).join("\n"));
  return table.ok ? table.value : null;
}

/** Columns of a table that hold what a person notes, and no logger writes. */
const NOTED = ["distance", "display", "percent", "bars", "event", "level", "ground", "note", "section"];

const columnsIn = (head: string): readonly string[] => {
  const table = tableOf(head);
  return table ? guessColumns(table, "mi").flatMap(({ field }) => field ?? []) : [];
};

/** Lines that begin with a stamp and go on with words. */
const stampedLines = (head: string) =>
  head.split("\n").filter((line) => /^\s*[[(]?(\d{1,3}:)?\d{1,3}:[0-5]\d[\])]?\s+[-–:]?\s*\p{L}/u.test(line))
    .length;

/** Every kind of file, the surest to be known first. */
export const FILE_FORMATS = [
  {
    id: "track",
    name: "a GPX track",
    sniff: (head) => /<gpx[\s>]/i.test(head),
    read: fromText((text, about) => {
      const file = scanGpx(text, "file");
      if (!file.ok) return file;
      const { points, trackName: name, sport } = file.value;
      return asRecording(recordedOf(points, { name, sport }, "file"), about);
    }),
  },
  {
    id: "tcx",
    name: "a TCX activity",
    sniff: (head) => /<(\w+:)?TrainingCenterDatabase[\s>]/.test(head),
    read: fromText((text, about) => asRecording(readTcx(text), about)),
  },
  {
    id: "fit",
    name: "a FIT activity",
    sniff: (head) => /^[\s\S]{4,12}\.FIT/.test(head.slice(0, 16)),
    read: (bytes, about) => asRecording(readFit(bytes), about),
  },
  {
    id: "logger",
    name: "a logger's samples",
    sniff: (head) => {
      const table = tableOf(head);
      return (
        isMeter(columnsOfMeter(table?.headings ?? [])) &&
        !columnsIn(head).some((field) => NOTED.includes(field))
      );
    },
    read: fromText((text, { logger, ...ride }) => as("telemetry", readLogger(text, logger, ride))),
  },
  {
    id: "photograph",
    name: "a photograph",
    sniff: (head) => /^(\ufffd\ufffd\ufffd|\ufffdPNG\r\n)/.test(head),
    read: (bytes) => as("photograph", readImage(bytes)),
  },
  {
    id: "narration",
    name: "what was said over a ride",
    sniff: (head) => {
      const format = spokenFormatOf(head);
      return format === "vtt" || format === "srt" || (format === "stamped" && stampedLines(head) > 1);
    },
    read: fromText((text) => as("spoken", readSpoken(text))),
  },
  {
    id: "checkIns",
    name: "a table of check-ins",
    sniff: (head) => !head.trimStart().startsWith("<") && !head.trimStart().startsWith("{"),
    read: fromText((text) => as("table", readTable(text))),
  },
] as const satisfies readonly FileFormat[];

export type FormatId = (typeof FILE_FORMATS)[number]["id"];

/**
 * The kind of file of an id; null for none.
 *
 * @example formatNamed("track").name === "a GPX track"
 * @example formatNamed("tape") === null
 */
export const formatNamed = (id: unknown): FileFormat | null =>
  FILE_FORMATS.find((format) => format.id === id) ?? null;

/** What a file is, by how it begins; null for what is none of the kinds. UTF-8, or UTF-16 by its byte-order mark. */
export function formatOf(bytes: Uint8Array): (FileFormat & { readonly id: FormatId }) | null {
  const head = bytes.subarray(0, HEAD_BYTES);
  const code =
    head[0] === 0xff && head[1] === 0xfe
      ? "utf-16le"
      : head[0] === 0xfe && head[1] === 0xff
        ? "utf-16be"
        : "utf-8";
  const text = new TextDecoder(code).decode(head);
  return FILE_FORMATS.find(({ sniff }) => sniff(text)) ?? null;
}
