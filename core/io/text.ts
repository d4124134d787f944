import { isPlainText, err, ok, type Result } from "#core/base";

/**
 * Decodes the bytes of a text file: UTF-8, or UTF-16 when a byte-order mark says so. Anything else is refused with the
 * line it was met on, rather than guessed.
 */
export function decodeText(bytes: Uint8Array, path: string): Result<string> {
  const utf16 =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? "utf-16le"
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? "utf-16be"
        : null;
  if (utf16) {
    const text = new TextDecoder(utf16).decode(bytes);
    return isPlainText(text) ? ok(text) : notText(path);
  }
  try {
    const text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    // A form feed between pages and the end-of-file mark of old programs do no harm.
    return isPlainText(text.replace(/\f|\u001a$/g, "")) ? ok(text) : notText(path);
  } catch {
    const lossy = new TextDecoder("utf-8").decode(bytes);
    const line = lossy.slice(0, lossy.indexOf("\ufffd")).split("\n").length;
    return err(
      "not-utf8",
      path,
      `Line ${line} is not UTF-8 text: the file was saved in another encoding. Save it again as “CSV UTF-8” and bring it in.`,
    );
  }
}

function notText(path: string): Result<string> {
  return err("not-text", path, "This is not a text file. Save the table as CSV and bring that in.");
}
