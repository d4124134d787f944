import { href, Link } from "react-router";
import { fixed, formatQuantity, halfWidth95 } from "#core/base";
import { Figure } from "#ui/figure";
import { useSystem } from "#ui/system";
import type { StripResults } from "#app/services/strip/view";

interface EndProps {
  readonly results: StripResults;
  /** Mark under the strip's cursor. */
  readonly cursor: number | null;
  readonly onHandMark: (mark: number) => void;
  readonly onClearHandMark: (rootId: string) => void;
}

const percent = (value: { mean: number; sd: number }) =>
  `${fixed(value.mean * 100, 0)} ± ${fixed(halfWidth95(value) * 100, 0)} %`;

/** What the end makes of the range. */
function RangeList({ results }: { readonly results: EndProps["results"] }) {
  const { rangeTotal, rangeFullPower, rangeWithReserve } = results;
  return (
    <section>
      <h2 className="mb-1">What that makes of the range</h2>
      <dl className="grid grid-cols-[1fr_auto] gap-x-6 gap-y-1.5">
        {(
          [
            ["total", rangeTotal],
            ["to the end of full power", rangeFullPower],
            ["with a fifth kept back", rangeWithReserve],
          ] as const
        ).map(([name, figure]) =>
          figure ? (
            <div key={name} className="contents">
              <dt>
                {name} <span className="text-sm text-quiet">({figure.because})</span>
              </dt>
              <dd className="text-right">
                <Figure value={figure.value} dimension="distance" pencil={figure.pencil} />
              </dd>
            </div>
          ) : null,
        )}
      </dl>
    </section>
  );
}

/** The gauge's points, as the ride has them. */
function GaugePoints({ thresholds }: { readonly thresholds: EndProps["results"]["thresholds"] }) {
  return (
    <section>
      <h2 className="mb-1">The gauge's points, as this ride has them</h2>
      <table className="table w-full max-w-xl">
        <caption className="sr-only">The gauge's points, assumed and as this ride has them</caption>
        <thead>
          <tr>
            <th scope="col">Point</th>
            <th scope="col" className="number">
              Energy used there
            </th>
            <th scope="col" className="number">
              Assumed before
            </th>
          </tr>
        </thead>
        <tbody>
          {thresholds.map(({ name, used, prior }) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td className="number">{percent(used)}</td>
              <td className="number pencil">{percent(prior)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** How the test ended, where full power did, and what that leaves of the range. */
export function End({ results, cursor, onHandMark, onClearHandMark }: EndProps) {
  const system = useSystem();
  const { end, rangeFullPower, curve, thresholds } = results;
  const point = cursor === null ? null : curve[Math.min(cursor, curve.length - 1)]!;
  return (
    <div className="grid max-w-3xl gap-6">
      <section>
        <h2 className="mb-1">How it ended</h2>
        <p>
          {end.reason === null ? (
            <>
              No end is noted. Add it above as the last check-in, with its reason: only a pack that cut off,
              low power held, a speed not held or a gauge at zero closes the range.
            </>
          ) : (
            <>
              {end.reason.charAt(0).toUpperCase() + end.reason.slice(1)}, with {percent(end.used)} of the pack
              used. {end.closed ? "That closes the range." : "That leaves a projection, not a range ridden."}
            </>
          )}
        </p>
      </section>
      <section>
        <h2 className="mb-1">Where full power ended</h2>
        {end.fullPower ? (
          <p>
            At {formatQuantity(end.fullPower.distanceM, "distance", system)}, by {end.fullPower.by}.
          </p>
        ) : (
          <p className="pencil">Not seen: {rangeFullPower?.because ?? "nothing says where"}.</p>
        )}
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <button
            type="button"
            className="button"
            disabled={cursor === null || cursor === 0}
            onClick={() => cursor !== null && onHandMark(cursor)}
          >
            {point && cursor !== 0
              ? `Mark it by hand at ${formatQuantity(point.distanceM, "distance", system)}`
              : "Mark it by hand"}
          </button>
          {end.fullPower?.by === "hand" && end.fullPower.rootId ? (
            <button
              type="button"
              className="button button-plain"
              onClick={() => onClearHandMark(end.fullPower!.rootId!)}
            >
              take the hand mark back
            </button>
          ) : null}
          {cursor === null || cursor === 0 ? (
            <span className="text-sm text-quiet">
              Put the strip's cursor where levels stopped differing, or the set speed was no longer held.
            </span>
          ) : null}
        </div>
      </section>
      <RangeList results={results} />
      {thresholds.length ? <GaugePoints thresholds={thresholds} /> : null}
      <p className="text-sm text-quiet">
        A pack ridden flat often ages sooner. <Link to={href("/settings")}>The cautions in full</Link> are
        under Settings.
      </p>
    </div>
  );
}
