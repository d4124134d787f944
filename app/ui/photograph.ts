/** Longest side of a photograph on a page, pixels. */
const LONGEST_PX = 1800;
const QUALITY = 0.85;

/** A photograph in the size of a page, upright; the file itself where the browser cannot. */
export async function smaller(file: File): Promise<File> {
  try {
    const picture = await createImageBitmap(file);
    const scale = Math.min(1, LONGEST_PX / Math.max(picture.width, picture.height));
    const canvas = document.createElement("canvas");
    canvas.width = Math.round(picture.width * scale);
    canvas.height = Math.round(picture.height * scale);
    canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, "image/jpeg", QUALITY));
    return blob ? new File([blob], file.name, { type: "image/jpeg" }) : file;
  } catch {
    return file;
  }
}

/** What a camera writes of the moment: "2026:10:18 09:31:04", and its distance from UTC where it knows it. */
interface Exif {
  readonly DateTimeOriginal?: unknown;
  readonly OffsetTimeOriginal?: unknown;
}

/**
 * When a photograph was taken, by its camera's clock; nothing else of what stands beside it is looked at.
 *
 * @returns day, time and the camera's zone, empty where it does not say; null without a moment
 */
export async function takenAt(
  file: Blob,
): Promise<{ readonly day: string; readonly clock: string; readonly zone: string } | null> {
  const { parse } = await import("exifr/dist/lite.esm.mjs");
  const told = (await parse(file, {
    exif: ["DateTimeOriginal", "OffsetTimeOriginal"],
    gps: false,
    reviveValues: false,
  }).catch(() => null)) as Exif | null | undefined;
  const found = /^(\d{4})[:-](\d\d)[:-](\d\d)[ T](\d\d:\d\d:\d\d)/.exec(String(told?.DateTimeOriginal ?? ""));
  if (!found) return null;
  const [, year, month, day, clock = ""] = found;
  const zone = String(told?.OffsetTimeOriginal ?? "");
  return { day: `${year}-${month}-${day}`, clock, zone: /^[+-]\d\d:\d\d$/.test(zone) ? zone : "" };
}
