import { lazy, Suspense, useEffect, useState } from "react";
import { useLocation } from "react-router";
import { hasParts } from "./pageParts";

/** Fetched when it is asked for: pages stay light. */
const Parts = lazy(() => import("./parts"));

/** How often a page that fills in is looked at for something to take away, and for how long, ms. */
const LOOK_MS = 700;
const LOOKS = 8;

/** At the foot of a page that has tables or charts: each of them as a file. */
export function TakeAwayPanel({ busy }: { readonly busy: boolean }) {
  const { pathname, search } = useLocation();
  const [seen, setSeen] = useState<string | null>(null);
  const [open, setOpen] = useState<string | null>(null);
  const here = `${pathname}${search}`;
  useEffect(() => {
    if (busy) return undefined;
    let left = LOOKS;
    const look = () => {
      left -= 1;
      if (hasParts()) setSeen(here);
      if (left <= 0 || hasParts()) clearInterval(timer);
    };
    const timer = setInterval(look, LOOK_MS);
    return () => clearInterval(timer);
  }, [here, busy]);
  // Where a phone logs, nothing else is in the way.
  if (seen !== here || /^\/(ride\/|sheet\/.)/.test(pathname)) return null;
  return (
    <details
      className="mx-4 mb-6 md:mx-6 print:hidden"
      open={open === here}
      onToggle={({ currentTarget }) => setOpen(currentTarget.open ? here : null)}
    >
      <summary className="cursor-pointer text-sm text-spruce">
        Tables and charts of this page, as files
      </summary>
      {open === here ? (
        <Suspense fallback={null}>
          <Parts />
        </Suspense>
      ) : null}
    </details>
  );
}
