import { useCallback } from "react";

/** Longest side of a photograph on a page, pixels. */
const LONGEST_PX = 1800;
const QUALITY = 0.85;

/** A photograph in the size of a page, upright; the file itself where the browser cannot. */
async function smaller(file: File): Promise<File> {
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

/** Makes what is chosen in a field for a photograph small, before it is sent. */
export function useSmaller(): (target: EventTarget) => Promise<void> {
  return useCallback(async (target) => {
    if (!(target instanceof HTMLInputElement) || target.type !== "file") return;
    const [file] = target.files ?? [];
    if (!file?.type.startsWith("image/")) return;
    const files = new DataTransfer();
    files.items.add(await smaller(file));
    target.files = files.files;
    target.setCustomValidity("");
  }, []);
}
