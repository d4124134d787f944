import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { decimalBy } from "#core/base";
import { noteOwnCopy } from "#app/ui/network/keptCopy";
import { patientFetch, tryNow } from "#app/ui/network/patientFetch";

/** A UUIDv7: the time, then chance. Of its own, so that the first page stays light. */
function newId(): string {
  const time = Date.now().toString(16).padStart(12, "0");
  return `${time.slice(0, 8)}-${time.slice(8)}-7${crypto.randomUUID().slice(15)}`;
}

// The page says how its reader writes numbers, so that what is drawn here is what was sent.
decimalBy(() => (document.documentElement.dataset["decimal"] === "," ? "," : "."));
window.fetch = patientFetch(window.fetch.bind(window), newId);
window.addEventListener("online", tryNow);
noteOwnCopy();

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});
