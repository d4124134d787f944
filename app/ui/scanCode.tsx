import { useMemo } from "react";
import { codeOf } from "./sheet/code";

/** An address as squares that a phone's camera reads. */
export function ScanCode({ address, label }: { readonly address: string; readonly label: string }) {
  const { side, dark } = useMemo(() => codeOf(address), [address]);
  return (
    <svg
      viewBox={`-3 -3 ${side + 6} ${side + 6}`}
      className="size-56 bg-white"
      role="img"
      aria-label={label}
      shapeRendering="crispEdges"
    >
      <path d={dark.map(([x, y]) => `M${x} ${y}h1v1h-1z`).join("")} fill="#000" />
    </svg>
  );
}
