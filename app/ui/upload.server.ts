import { bad, good, type Result } from "#core/problems";
import { isPlainText, NOT_TEXT, plainText } from "#core/base";
import { decodeText } from "#core/formats";

/** An uploaded file's name and bytes, or one sentence about why it cannot be read. */
export async function uploadedBytes(
  value: FormDataEntryValue | null,
  limitBytes: number,
): Promise<Result<{ readonly name: string; readonly bytes: Uint8Array }>> {
  if (!(value instanceof File) || value.size === 0)
    return bad("no-file", "file", "Choose a file that is not empty.");
  if (value.size > limitBytes) return bad("too-large", "file", tooLarge(limitBytes));
  return good({
    name: plainText(value.name).slice(0, 120),
    bytes: new Uint8Array(await value.arrayBuffer()),
  });
}

const tooLarge = (limitBytes: number) =>
  `The file is over ${limitBytes / 1024 / 1024} MB: bring in one ride at a time, or one row a second.`;

/** The text of an uploaded file, or one sentence about why it cannot be read. */
export async function uploadedText(
  value: FormDataEntryValue | null,
  limitBytes: number,
): Promise<Result<{ readonly name: string; readonly text: string }>> {
  const file = await uploadedBytes(value, limitBytes);
  if (!file.ok) return file;
  const text = decodeText(file.value.bytes, "file");
  return text.ok ? good({ name: file.value.name, text: text.value }) : text;
}

/** Text that a form sends back, held to what a file is held to. */
export function pastedText(
  name: string,
  text: string,
  limitBytes: number,
): Result<{ readonly name: string; readonly text: string }> {
  if (text.length > limitBytes) return bad("too-large", "file", tooLarge(limitBytes));
  if (!isPlainText(text)) return bad("not-text", "file", NOT_TEXT);
  return good({ name: plainText(name).slice(0, 120), text });
}
