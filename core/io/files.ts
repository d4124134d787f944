import { guessColumns, readTable } from "./table.ts";
import { columnsOfLogger } from "./logger.ts";

/** A kind of file that a ride takes. A new one is its reader, and a line here that knows it by how it begins. */
export interface FileFormat {
  readonly id: "track" | "logger" | "checkIns";
  /** What was found, for a person. */
  readonly name: string;
  /** Whether a text begins like one. */
  readonly sniff: (head: string) => boolean;
}

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

/** Every kind of file, the surest to be known first. */
export const FILE_FORMATS: readonly FileFormat[] = [
  { id: "track", name: "a GPX track", sniff: (head) => /<gpx[\s>]/i.test(head) },
  {
    id: "logger",
    name: "a logger's samples",
    sniff: (head) => {
      const table = tableOf(head);
      const { time, volts, amps } = columnsOfLogger(table?.headings ?? []);
      return Math.min(time, volts, amps) >= 0 && !columnsIn(head).some((field) => NOTED.includes(field));
    },
  },
  {
    id: "checkIns",
    name: "a table of check-ins",
    sniff: (head) => !head.trimStart().startsWith("<") && !head.trimStart().startsWith("{"),
  },
];

/** What a file is, by how it begins; null for what is none of the kinds. UTF-8, or UTF-16 by its byte-order mark. */
export function formatOf(bytes: Uint8Array): FileFormat | null {
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
