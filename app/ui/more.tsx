import { Ellipsis } from "lucide-react";
import { lazy, Suspense, useSyncExternalStore } from "react";
import { NavLink } from "react-router";

export interface MoreProps {
  readonly to: readonly { readonly to: string; readonly name: string }[];
}

/** Fetched once the page is alive: the first page is light. */
const MoreMenu = lazy(() => import("./overlays/moreMenu"));

/** The stations that have no room on the phone's bar, as a fold: it works before the page is alive, and without script. */
function MoreFold({ to, pending }: MoreProps & { readonly pending: boolean }) {
  return (
    <details className="relative flex-1" {...(pending ? { "data-pending": 1 } : {})}>
      <summary className="flex list-none flex-col items-center gap-0.5 border-t-2 border-transparent py-2 text-xs text-ink">
        <Ellipsis className="size-5" aria-hidden />
        More
      </summary>
      <div className="sheet absolute right-0 bottom-full z-20 grid min-w-44 py-1">
        {to.map((station) => (
          <NavLink key={station.to} to={station.to} className="flex min-h-12 items-center px-4 no-underline">
            {station.name}
          </NavLink>
        ))}
      </div>
    </details>
  );
}

/** The bar is there, on a phone; a desk fetches no menu for it. */
const BAR = "(width < 48rem)";

function hearBar(listener: () => void): () => void {
  const query = window.matchMedia(BAR);
  query.addEventListener("change", listener);
  return () => query.removeEventListener("change", listener);
}

/** The stations that have no room on the phone's bar. */
export function More({ to }: MoreProps) {
  const alive = useSyncExternalStore(
    hearBar,
    () => window.matchMedia(BAR).matches,
    () => false,
  );
  return alive ? (
    <Suspense fallback={<MoreFold to={to} pending />}>
      <MoreMenu to={to} />
    </Suspense>
  ) : (
    <MoreFold to={to} pending={false} />
  );
}
