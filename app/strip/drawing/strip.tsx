import { memo, useMemo, useRef, type KeyboardEvent } from "react";
import { announce } from "#app/ui/announcer";
import { isLetterPress } from "#app/ui/letterKeys";
import { fixed, formatBare, formatQuantity, halfWidth95, type System } from "#core/base";
import { readingName, type ReadingKindName } from "#core/battery/readings";
import type { DrawnReading } from "#core/analysis";
import { ReadingShape } from "#ui/charts/readingShape";
import { useSystem } from "#ui/system";
import type { StripResults } from "#app/services/strip/view";
import { layOutStrip } from "#app/ui/charts/stripTracks/layout";
import { Readout } from "./readout";
import { useWidth } from "#app/ui/charts/scale";
import { Tracks } from "#ui/charts/stripTracks/tracks";

interface StripProps {
  readonly results: StripResults;
  /** Bike's levels, least first: how high each band is drawn. */
  readonly levels: readonly string[];
  /** The mark under the cursor. */
  readonly cursor: number | null;
  readonly onCursor: (mark: number | null) => void;
  /** Called with the reading under the cursor when x is pressed. */
  readonly onSetAside: (reading: DrawnReading) => void;
}

/** Everything that stands still while the cursor moves. */
const StillTracks = memo(Tracks);

/** Marks that a press of Page Up or Page Down goes over. */
const LEAP = 5;

/** The mark a key goes to; null for a key that moves nothing. */
function markByKey(key: string, cursor: number | null, last: number): number | null {
  const from = cursor ?? (key === "ArrowLeft" ? last + 1 : -1);
  const to: Readonly<Record<string, number>> = {
    ArrowRight: from + 1,
    ArrowUp: from + 1,
    ArrowLeft: from - 1,
    ArrowDown: from - 1,
    PageUp: from + LEAP,
    PageDown: from - LEAP,
    Home: 0,
    End: last,
  };
  const mark = to[key];
  return mark === undefined ? null : Math.min(last, Math.max(0, mark));
}

/** The keys of the strip while it is focused: from mark to mark, x sets the worst reading there aside; a logger's stretch is no entry. */
function keyOn({ results, cursor, onCursor, onSetAside }: StripProps, event: KeyboardEvent): void {
  const mark = markByKey(event.key, cursor, results.curve.length - 1);
  if (mark !== null && !event.ctrlKey && !event.metaKey && !event.altKey) {
    event.preventDefault();
    onCursor(mark);
    return;
  }
  if (event.key !== "x" || cursor === null || !isLetterPress(event.nativeEvent)) return;
  const [worst] = results.readings
    .filter(({ mark: at, kind }) => at === cursor && kind !== "telemetry")
    .sort((a, b) => Math.abs(b.standing ?? 9) - Math.abs(a.standing ?? 9));
  if (!worst) return;
  event.preventDefault();
  onSetAside(worst);
  announce(`${worst.text} ${worst.struck ? "restored" : "set aside"}. Press x again to undo.`);
}

/** What the strip holds at a mark, as it is read out. */
function markSaid({ curve, legs }: StripResults, mark: number, system: System): string {
  const { distanceM, left } = curve[mark]!;
  const leg = legs[Math.min(mark, legs.length - 1)];
  return [
    `${system === "imperial" ? "mile" : "km"} ${formatBare(distanceM, "distance", system)}: ${fixed(left.mean * 100, 0)} % left, plus or minus ${fixed(halfWidth95(left) * 100, 0)}`,
    ...(leg ? [`${leg.level} level`, leg.ground] : []),
  ].join("; ");
}

/** The paper strip: everything known of the ride at its mile. */
export const Strip = memo(function Strip(props: StripProps) {
  const { results, levels, cursor, onCursor } = props;
  const system = useSystem();
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 768);
  const layout = useMemo(() => layOutStrip(results, width, system), [results, width, system]);
  const { curve } = results;
  const at = cursor === null ? null : Math.min(cursor, curve.length - 1);
  const [first, last] = [curve[0]!, curve.at(-1)!];
  return (
    <div ref={frame} className="min-w-0">
      <Readout results={results} mark={at} />
      <div
        role="slider"
        tabIndex={0}
        aria-label={`Strip over ${formatQuantity(last.distanceM - first.distanceM, "distance", system)}: energy left falls from ${fixed(first.left.mean * 100, 0)} to ${fixed(last.left.mean * 100, 0)} percent. The readings table below holds every figure.`}
        aria-valuemin={0}
        aria-valuemax={curve.length - 1}
        aria-valuenow={at ?? 0}
        aria-valuetext={at === null ? "no mark chosen" : markSaid(results, at, system)}
        onKeyDown={(event) => keyOn(props, event)}
      >
        <svg
          width={width}
          height={layout.height}
          viewBox={`0 0 ${width} ${layout.height}`}
          aria-hidden
          onPointerMove={(event) => {
            const pointer = event.clientX - event.currentTarget.getBoundingClientRect().left;
            let nearest = 0;
            curve.forEach(({ distanceM }, i) => {
              if (
                Math.abs(layout.x(distanceM) - pointer) <
                Math.abs(layout.x(curve[nearest]!.distanceM) - pointer)
              )
                nearest = i;
            });
            onCursor(nearest);
          }}
          className="block text-ink"
          fontSize={13}
          fill="currentColor"
        >
          <StillTracks results={results} levels={levels} layout={layout} system={system} />
          {at === null ? null : (
            <path
              d={`M${layout.x(curve[at]!.distanceM)} ${layout.ground.top}V${layout.axis}`}
              stroke="var(--color-ochre-fill)"
              strokeWidth={1.5}
              strokeDasharray="3 3"
              pointerEvents="none"
            />
          )}
        </svg>
      </div>
      <Shapes kinds={[...new Set(results.readings.map(({ kind }) => kind))]} />
    </div>
  );
});

/** What each shape on the strip is. */
function Shapes({ kinds }: { readonly kinds: readonly string[] }) {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1 pl-[74px] text-sm text-quiet" aria-label="Shapes">
      {kinds.map((kind) => (
        <li key={kind} className="flex items-center gap-1.5">
          <svg width={18} height={20} aria-hidden>
            <ReadingShape kind={kind} x={9} y={10} />
          </svg>
          {readingName(kind as ReadingKindName)}
        </li>
      ))}
      <li className="flex items-center gap-1.5">
        <svg width={18} height={20} aria-hidden>
          <ReadingShape kind="percent" x={9} y={10} hollow colour="var(--color-ochre-fill)" />
        </svg>
        in question or set aside
      </li>
    </ul>
  );
}
