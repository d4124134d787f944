import { useEffect } from "react";
import type { Fetcher } from "react-router";

/** What a fetcher is sending is sent once more, by itself, when the page is left meanwhile: for what may be sent twice. */
export function useSentOnLeave({ formData, formAction }: Pick<Fetcher, "formData" | "formAction">): void {
  useEffect(() => {
    if (!formData || !formAction) return;
    const send = () =>
      void fetch(formAction, { method: "POST", body: formData, keepalive: true }).catch(() => undefined);
    window.addEventListener("pagehide", send);
    return () => window.removeEventListener("pagehide", send);
  }, [formData, formAction]);
}
