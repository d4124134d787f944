import { countOf } from "#core/base";
import { useEffect } from "react";
import { href, isRouteErrorResponse, Link, Outlet } from "react-router";
import { useAskAgain } from "#ui/forms/fillIn";
import { Page } from "#ui/page";
import type { Route } from "./+types/inside";

/** Everything inside the frame: what goes wrong in a page is said here, and the rail stays. */
export default function Inside() {
  return <Outlet />;
}

interface Reckoning {
  readonly reckoning: true;
  readonly stale: number;
  readonly all: number;
}

const isReckoning = (data: unknown): data is Reckoning =>
  typeof data === "object" && data !== null && "reckoning" in data;

/** The page that comes in this one's place has the focus on its heading, as any page that was gone to. */
function useFocusOnWhatComes(): void {
  useEffect(
    () => () => {
      requestAnimationFrame(() => {
        if (document.activeElement === document.body)
          document.querySelector<HTMLElement>("#page h1")?.focus({ preventScroll: true });
      });
    },
    [],
  );
}

/** A page whose figures take longer: how far it is, and itself as soon as it is ready. */
function StillReckoning({ stale, all }: Reckoning) {
  useAskAgain(true);
  useFocusOnWhatComes();
  return (
    <Page title="Calculating" line="This page updates by itself when its figures are ready.">
      <div className="grid max-w-xl gap-3 p-4 md:p-6" role="status" data-pending={stale}>
        {stale > 0 ? (
          <>
            <p>
              {stale} of {countOf(all, "test")} still to calculate.
            </p>
            <progress
              max={all}
              value={all - stale}
              className="w-64 accent-spruce"
              aria-label="Reckoned so far"
            />
          </>
        ) : (
          <p>The tests are being put side by side.</p>
        )}
      </div>
    </Page>
  );
}

/** What went wrong has the focus, so that it is read first. */
function useErrorFocus(): void {
  useEffect(() => document.querySelector<HTMLElement>("#page h1")?.focus(), []);
}

/** What a person sees when a page cannot be shown: a sentence and what to do, never a stack. */
export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  useErrorFocus();
  const known = isRouteErrorResponse(error) ? error : null;
  if (known && isReckoning(known.data)) return <StillReckoning {...known.data} />;
  const sentence = typeof known?.data === "string" && known.data !== "" ? known.data : null;
  const title =
    known?.status === 404
      ? "Not here"
      : known?.status === 503
        ? "Busy"
        : known && known.status < 500
          ? "This cannot be done"
          : "Something broke";
  return (
    <Page title={title}>
      <div className="grid max-w-xl gap-4 p-4 md:p-6" role="alert">
        <p>{sentence ?? "Nothing was changed. Try again; the log of the start command says more."}</p>
        <div className="flex flex-wrap gap-3">
          <a className="button button-main" href="">
            Try again
          </a>
          <Link className="button" to={href("/")}>
            Back to Today
          </Link>
        </div>
      </div>
    </Page>
  );
}
