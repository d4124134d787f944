import { halfWidth95 } from "#core/base";
import type { DrawnReading } from "#core/analysis";
import { ReadingShape } from "#ui/charts/readingShape";
import type { StripResults } from "#app/services/strip/view";
import type { StripLayout } from "./layout";

/** How far below the curve's foot counted energy is drawn. */
const COUNTED_BELOW = 16;

const TICKS = [100, 80, 60, 40, 20, 0];

const readingKey = ({ rootId, field, kind }: { rootId: string; field: string | null; kind?: string }) =>
  `${rootId}/${field ?? kind ?? ""}`;

/** Where full power ends. */
function FullPowerEnds({
  atX,
  top,
  height,
}: {
  readonly atX: number;
  readonly top: number;
  readonly height: number;
}) {
  return (
    <g>
      <path d={`M${atX} ${top}V${top + height}`} stroke="var(--color-ink)" strokeDasharray="4 3" />
      <text x={atX - 6} y={top + 16} textAnchor="end" fontStyle="italic" fill="var(--color-quiet)">
        full power ends
      </text>
    </g>
  );
}

/** The discharge curve with its band, and every reading in its shape on it. */
export function EnergyTrack({
  results,
  layout,
}: {
  readonly results: StripResults;
  readonly layout: StripLayout;
}) {
  const { curve, readings, flags, end } = results;
  const { energy, x, yOfUsed, left, right, width } = layout;
  const questioned = new Set(flags.map(({ rootId, field }) => `${rootId}/${field ?? ""}`));
  const isQuestioned = ({ rootId, field }: DrawnReading) => questioned.has(`${rootId}/${field ?? ""}`);
  const edge = (side: 1 | -1) =>
    curve.map(
      ({ distanceM, used }) =>
        `${x(distanceM).toFixed(1)},${yOfUsed(used.mean + side * halfWidth95(used)).toFixed(1)}`,
    );
  const line = curve.map(
    ({ distanceM, used }) => `${x(distanceM).toFixed(1)},${yOfUsed(used.mean).toFixed(1)}`,
  );
  const flag = flags[0];
  const flagged = flag && readings.find((reading) => isQuestioned(reading) && reading.rootId === flag.rootId);
  // Counted energy says nothing of the curve by itself: it stands in a row at the foot.
  const countedY = energy.top + energy.height + COUNTED_BELOW;
  const late = flagged ? x(flagged.distanceM) > width * 0.6 : false;
  return (
    <g>
      <text x={0} y={energy.top + 30} fontWeight={650}>
        Energy
      </text>
      <text x={0} y={energy.top + 47} fontWeight={650}>
        left
      </text>
      <text x={0} y={energy.top + 64} fill="var(--color-quiet)">
        %
      </text>
      {TICKS.map((tick) => (
        <g key={tick}>
          <path d={`M${left} ${yOfUsed(1 - tick / 100)}H${right}`} stroke="var(--color-rule)" />
          <text x={left - 8} y={yOfUsed(1 - tick / 100) + 4} textAnchor="end" fill="var(--color-quiet)">
            {tick}
          </text>
        </g>
      ))}
      <polygon
        points={[...edge(-1), ...edge(1).reverse()].join(" ")}
        fill="var(--color-spruce)"
        fillOpacity={0.16}
      />
      <polyline points={line.join(" ")} fill="none" stroke="var(--color-spruce)" strokeWidth={2.2} />
      {end.fullPower ? (
        <FullPowerEnds atX={x(end.fullPower.distanceM)} top={energy.top} height={energy.height} />
      ) : null}
      {readings.map((reading) => {
        const doubted = reading.struck || isQuestioned(reading);
        return (
          <ReadingShape
            key={readingKey(reading)}
            kind={reading.kind}
            x={x(reading.distanceM)}
            y={reading.says ? yOfUsed(reading.says.mean) : countedY}
            hollow={doubted}
            colour={doubted ? "var(--color-ochre-fill)" : "var(--color-ink)"}
          />
        );
      })}
      {flagged?.says ? (
        <text
          x={x(flagged.distanceM) + (late ? -12 : 12)}
          y={yOfUsed(flagged.says.mean) - 10}
          textAnchor={late ? "end" : "start"}
          fontStyle="italic"
          fill="var(--color-ochre)"
        >
          {flagged.text}: in question
        </text>
      ) : null}
    </g>
  );
}
