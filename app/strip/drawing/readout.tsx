import { formatBare, formatQuantity, writeShare } from "#core/base";
import { useSystem } from "#ui/system";
import type { StripResults } from "#app/services/strip/view";

interface ReadoutProps {
  readonly results: StripResults;
  readonly mark: number | null;
}

/** What the strip holds at the cursor, read from every track. */
export function Readout({ results, mark }: ReadoutProps) {
  const system = useSystem();
  const { curve, legs, readings, marks, stretches, end } = results;
  const point = mark === null ? null : curve[mark]!;
  const leg = mark === null ? null : (legs[Math.min(mark, legs.length - 1)] ?? null);
  const here = mark === null ? [] : readings.filter((reading) => reading.mark === mark);
  const stretch =
    point && stretches.find(({ fromM, toM }) => fromM < point.distanceM && toM >= point.distanceM);
  const notes = mark === null ? [] : marks[mark]!.notes;
  return (
    <div
      className={`${point ? "" : "entering"} sheet mb-2 flex min-h-10 flex-wrap items-center gap-x-5 gap-y-1 px-3 py-1.5 text-sm`}
    >
      {point ? (
        <>
          <span>
            {system === "imperial" ? "mile" : "km"} <b>{formatBare(point.distanceM, "distance", system)}</b>
          </span>
          <span>
            energy left <b>{writeShare(point.left).value}</b> {writeShare(point.left).spread} %
          </span>
          {leg ? (
            <span>
              level <b>{leg.level}</b>, {leg.ground}
            </span>
          ) : null}
          {stretch ? (
            <span>
              <b>{formatQuantity(stretch.whPerM.mean, "energyPerDistance", system)}</b> to here
            </span>
          ) : null}
          <span className="text-quiet">
            {[
              ...here.map(({ text, struck }) => (struck ? `${text} (set aside)` : text)),
              ...(end.fullPower?.distanceM === point.distanceM ? ["full power ends"] : []),
              ...notes.map((note) => `“${note}”`),
            ].join(", ")}
          </span>
        </>
      ) : (
        <span className="entering text-quiet">
          Point at the strip, or click it and press ← and → to go from mark to mark; x sets a reading aside.
        </span>
      )}
    </div>
  );
}
