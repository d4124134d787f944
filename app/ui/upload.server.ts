import { bad, good, type Result } from "#core/problems";
import { decodeText } from "#core/formats";

/** The text of an uploaded file, or one sentence about why it cannot be read. */
export async function uploadedText(
  value: FormDataEntryValue | null,
  limitBytes: number,
): Promise<Result<{ readonly name: string; readonly text: string }>> {
  if (!(value instanceof File) || value.size === 0)
    return bad("no-file", "file", "Choose a file that is not empty.");
  if (value.size > limitBytes)
    return bad(
      "too-large",
      "file",
      `The file is over ${limitBytes / 1024 / 1024} MB: bring in one ride at a time.`,
    );
  const text = decodeText(new Uint8Array(await value.arrayBuffer()), "file");
  return text.ok ? good({ name: value.name, text: text.value }) : text;
}
