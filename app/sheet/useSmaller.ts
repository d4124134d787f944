import { useCallback } from "react";
import { smaller } from "#app/ui/photograph";

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
