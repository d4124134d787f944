import { Suspense, type ReactNode } from "react";
import { useHydrated } from "#ui/hydrated";

interface ChartProps {
  /** What it shows, in words. Left out where a table beside it says the same. */
  readonly label?: string;
  /** Room kept for it until it is drawn, px. */
  readonly height: number;
  readonly className?: string;
  readonly children: ReactNode;
}

/** A chart, fetched and drawn once the page is alive; its place is kept free until then. */
export function Chart({ label, height, className, children }: ChartProps) {
  const alive = useHydrated();
  const said = label === undefined ? { "aria-hidden": true } : { role: "img", "aria-label": label };
  return (
    <div {...said} className={`min-w-0 overflow-x-clip ${className ?? ""}`} style={{ minHeight: height }}>
      {alive ? <Suspense fallback={null}>{children}</Suspense> : null}
    </div>
  );
}
