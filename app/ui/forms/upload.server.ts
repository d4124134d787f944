import { once } from "node:events";
import { Readable } from "node:stream";
import busboy from "busboy";
import { err, ok, type Result, isPlainText, NOT_TEXT, plainText } from "#core/base";
import { decodeText } from "#core/io";

/** A form with one file in it: its texts, and the file or why it cannot be read. */
export interface Upload {
  readonly form: FormData;
  readonly file: Result<{ readonly name: string; readonly bytes: Uint8Array }>;
}

/** Texts beside a file are short. */
const TEXT_BYTES = 64 * 1024;

/**
 * Reads a form with a file piece by piece, so that others are let in between; a file over its limit is refused as soon as
 * it is, not when all of it has come.
 */
export async function readUpload(request: Request, field: string, limitBytes: number): Promise<Upload> {
  const form = new FormData();
  const pieces: Buffer[] = [];
  let name = "";
  let over = false;
  const headers = { "content-type": request.headers.get("content-type") ?? "" };
  if (!headers["content-type"].startsWith("multipart/") || !request.body)
    return {
      form: await request.formData(),
      file: err("no-file", "file", "Choose a file that is not empty."),
    };
  const parser = busboy({
    headers,
    defParamCharset: "utf8",
    limits: { fileSize: limitBytes, files: 1, fields: 100, fieldSize: TEXT_BYTES },
  });
  parser.on("field", (key, value) => form.append(key, value));
  parser.on("file", (key, stream, info) => {
    if (key !== field) return stream.resume();
    name = info.filename ?? "";
    stream.on("data", (piece: Buffer) => pieces.push(piece));
    stream.on("limit", () => {
      over = true;
      pieces.length = 0;
      stream.resume();
    });
    return undefined;
  });
  if (!(await parsed(request.body, parser)))
    return { form, file: err("broken-form", "file", "The form came in broken: send it again.") };
  if (over) return { form, file: err("too-large", "file", tooLarge(limitBytes)) };
  const bytes = Buffer.concat(pieces);
  return bytes.length === 0
    ? { form, file: err("no-file", "file", "Choose a file that is not empty.") }
    : { form, file: ok({ name: plainText(name).slice(0, 120), bytes: new Uint8Array(bytes) }) };
}

/** Hands a body to its parser piece by piece. What is broken is read to its end all the same: the sender waits for an answer. */
async function parsed(body: ReadableStream<Uint8Array>, parser: busboy.Busboy): Promise<boolean> {
  let broken = false;
  const failed = new Promise<void>((resolve) =>
    parser.once("error", () => {
      broken = true;
      resolve();
    }),
  );
  const closed = new Promise<void>((resolve) => parser.once("close", resolve));
  for await (const piece of Readable.fromWeb(body as never))
    if (!broken && !parser.write(piece)) await Promise.race([once(parser, "drain"), failed]);
  if (!broken) {
    parser.end();
    await Promise.race([closed, failed]);
  }
  return !broken;
}

/** A file of a form that was read whole: small ones. */
export async function uploadedBytes(
  value: FormDataEntryValue | null,
  limitBytes: number,
): Promise<Upload["file"]> {
  if (!(value instanceof File) || value.size === 0)
    return err("no-file", "file", "Choose a file that is not empty.");
  if (value.size > limitBytes) return err("too-large", "file", tooLarge(limitBytes));
  return ok({
    name: plainText(value.name).slice(0, 120),
    bytes: new Uint8Array(await value.arrayBuffer()),
  });
}

const tooLarge = (limitBytes: number) =>
  `The file is over ${limitBytes / 1024 / 1024} MB: import one ride at a time, or one row a second.`;

/** The text of an uploaded file, or one sentence about why it cannot be read. */
export async function uploadedText(
  value: FormDataEntryValue | null,
  limitBytes: number,
): Promise<Result<{ readonly name: string; readonly text: string }>> {
  const file = await uploadedBytes(value, limitBytes);
  if (!file.ok) return file;
  const text = decodeText(file.value.bytes, "file");
  return text.ok ? ok({ name: file.value.name, text: text.value }) : text;
}

/** The text of a file that was read piece by piece, or one sentence about why it cannot be read. */
export function textOf(
  file: Upload["file"],
  limitBytes: number,
): Result<{ readonly name: string; readonly text: string }> {
  if (!file.ok) return file;
  const { name, bytes } = file.value;
  if (bytes.length > limitBytes) return err("too-large", "file", tooLarge(limitBytes));
  const text = decodeText(bytes, "file");
  return text.ok ? ok({ name, text: text.value }) : text;
}

/** Text that a form sends back, held to what a file is held to. */
export function pastedText(
  name: string,
  text: string,
  limitBytes: number,
): Result<{ readonly name: string; readonly text: string }> {
  if (text.length > limitBytes) return err("too-large", "file", tooLarge(limitBytes));
  if (!isPlainText(text)) return err("not-text", "file", NOT_TEXT);
  return ok({ name: plainText(name).slice(0, 120), text });
}
