import { z } from "zod";

/**
 * The desk as open files in one zip: `desk.json` says what it is, `records/` holds every table as lines of JSON, which another
 * desk takes in; `tests/` and `courses/` hold the same for other programs, as bundles, CSV and GPX. Described in
 * docs/formats/desk.md.
 */
export const HEAD_FILE = "desk.json";
export const recordsFile = (table: string) => `records/${table}.ndjson`;

export const headSchema = z.object({
  barometron: z.literal("desk"),
  format: z.literal(1),
  madeAt: z.string().max(40),
  tables: z.array(z.object({ name: z.string().max(60), rows: z.number().int().min(0) })).max(100),
});
export type DeskHead = z.infer<typeof headSchema>;

/** A zip that another desk cannot take in, with the sentence that says why. */
export class BadDesk extends Error {}

export const README = `This is a desk of Barometron as open files.

desk.json        what this is, and how many rows each table has
records/         everything, a table a file, a row a line of JSON; another desk takes it in from here
tests/           each test: its bundle (JSON, SI units), its readings and its log's figures (CSV), its tracks (GPX)
courses/         each course (GPX)
photographs/     photographs of sheets and of check-ins (JPEG, PNG)
`;
