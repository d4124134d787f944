import { err, ok, type Result } from "#core/base";

/** A photograph as it is kept: without what its camera wrote beside it, such as where it was taken. */
export interface ReadImage {
  readonly type: "image/jpeg" | "image/png";
  readonly widthPx: number;
  readonly heightPx: number;
  readonly bytes: Uint8Array;
}

/** Nothing that a page shows is larger, pixels to a side. */
const MOST_PX = 12_000;

const NO_IMAGE = "This is no photograph that pages show: choose a JPEG or PNG file.";
const refused = (sentence: string): Result<ReadImage> => err("no-image", "file", sentence);

/** Parts of a JPEG that a picture needs: its frame, tables and scan, and the colours of some programs. */
const isNeeded = (marker: number) =>
  !((marker >= 0xe1 && marker <= 0xed) || marker === 0xef || marker === 0xfe);
/** Start of a frame, of which some numbers are other things. */
const isFrame = (marker: number) =>
  marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc;

/** Source: ISO/IEC 10918-1, annex B. */
function readJpeg(bytes: Uint8Array): Result<ReadImage> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  let size: readonly [number, number] | null = null;
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0;
    const end = at + 2 + view.getUint16(at + 2);
    if (end > bytes.length) return refused(NO_IMAGE);
    if (isFrame(marker) && at + 9 <= bytes.length) size = [view.getUint16(at + 7), view.getUint16(at + 5)];
    if (marker === 0xda) {
      kept.push(bytes.subarray(at));
      break;
    }
    if (isNeeded(marker)) kept.push(bytes.subarray(at, end));
    at = end;
  }
  return size ? imageOf("image/jpeg", size, kept) : refused(NO_IMAGE);
}

const PNG_HEAD = 8;
/** Chunks of a PNG that a picture needs. */
const PNG_NEEDED = ["IHDR", "PLTE", "IDAT", "IEND", "tRNS", "gAMA", "sRGB", "cHRM", "sBIT", "bKGD"];

/** Source: ISO/IEC 15948, section 5. */
function readPng(bytes: Uint8Array): Result<ReadImage> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 33) return refused(NO_IMAGE);
  const kept: Uint8Array[] = [bytes.subarray(0, PNG_HEAD)];
  for (let at = PNG_HEAD; at + 12 <= bytes.length;) {
    const end = at + 12 + view.getUint32(at);
    if (end > bytes.length) return refused(NO_IMAGE);
    const name = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (PNG_NEEDED.includes(name)) kept.push(bytes.subarray(at, end));
    at = end;
  }
  return imageOf("image/png", [view.getUint32(16), view.getUint32(20)], kept);
}

function imageOf(
  type: ReadImage["type"],
  [widthPx, heightPx]: readonly [number, number],
  parts: readonly Uint8Array[],
): Result<ReadImage> {
  if (widthPx < 1 || heightPx < 1) return refused(NO_IMAGE);
  if (widthPx > MOST_PX || heightPx > MOST_PX)
    return refused("A photograph has at most 12,000 pixels to a side: make it smaller.");
  const bytes = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return ok({ type, widthPx, heightPx, bytes });
}

/** Reads a JPEG or PNG by its first bytes, and leaves out what is no picture: place, camera, comments. */
export function readImage(bytes: Uint8Array): Result<ReadImage> {
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return readJpeg(bytes);
  if (bytes[0] === 0x89 && bytes[1] === 0x50 && bytes[2] === 0x4e && bytes[3] === 0x47) return readPng(bytes);
  return refused(NO_IMAGE);
}
