import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { v7 as uuidv7 } from "uuid";
import { patientFetch, tryNow } from "#app/ui/network/patientFetch";

window.fetch = patientFetch(window.fetch.bind(window), () => uuidv7());
window.addEventListener("online", tryNow);

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});
