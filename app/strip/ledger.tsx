import { fixed, formatBare, formatQuantity, formatUncertain, unitOf, writeUncertain } from "#core/quantities";
import { sourceWords, type Explained } from "#core/results";
import type { ReactNode } from "react";
import type { DimensionName } from "#core/quantities";
import { Figure } from "#ui/figure";
import { useSystem } from "#ui/system";
import type { StripResults } from "./view";

function Line({
  name,
  value,
  because,
  pencil = false,
  slate = false,
}: {
  readonly name: string;
  readonly value: ReactNode;
  readonly because?: string | undefined;
  readonly pencil?: boolean;
  readonly slate?: boolean;
}) {
  const tone = pencil ? "pencil" : slate ? "text-slate" : "";
  return (
    <div className="grid grid-cols-[1fr_auto] items-baseline gap-x-3 border-t border-rule py-2.5">
      <dt className={tone}>{name}</dt>
      <dd className={`text-right font-medium whitespace-nowrap ${tone}`}>{value}</dd>
      {because ? <dd className="col-span-2 text-sm text-quiet">{because}</dd> : null}
    </div>
  );
}

/** The ledger beside the strip: each figure with its plus-or-minus and its reason. */
export function Ledger({ results }: { readonly results: StripResults }) {
  const system = useSystem();
  const {
    best,
    plain,
    plainMissing,
    difference,
    energy,
    distance,
    capacity,
    rangeTotal,
    rangeFullPower,
    rangeWithReserve,
    movingS,
    meanSpeedMps,
    widened,
    bestWithoutFlags,
  } = results;
  const explained = (name: string, figure: Explained | null, dimension: DimensionName) =>
    figure ? (
      <Line
        name={name}
        value={formatUncertain(figure.value, dimension, system)}
        because={figure.because}
        pencil={figure.pencil}
      />
    ) : null;
  return (
    <section aria-label="Ledger" className="sheet h-fit p-5">
      <p className="text-quiet">Best</p>
      <Figure value={best.value} dimension="energyPerDistance" pencil={best.pencil} large />
      <p className="mt-2 mb-3 text-sm text-quiet">
        {best.because}. The ± holds 95 of 100.
        {widened > 1.001
          ? ` The readings disagree more than their errors allow, so every ± is widened by ${formatPercent(widened - 1)}.`
          : ""}
      </p>
      {bestWithoutFlags ? (
        <p className="mb-3 border-l-4 border-ochre-fill pl-3">
          Without what is in question:
          <br />
          <Figure value={bestWithoutFlags} dimension="energyPerDistance" pencil />
        </p>
      ) : null}
      <dl>
        {plain ? (
          <Line
            name="Plain"
            value={`${formatBare(plain.whPerM, "energyPerDistance", system)} ${unitOf("energyPerDistance", system)}`}
            because={[plain.because, difference].filter(Boolean).join(". ")}
            slate
          />
        ) : (
          <Line name="Plain" value="none" because={plainMissing ?? undefined} slate />
        )}
        {explained("Energy used", energy, "energy")}
        {explained("Distance", distance, "distance")}
        {explained("Range, total", rangeTotal, "distance")}
        {explained("to the end of full power", rangeFullPower, "distance")}
        {explained("with a fifth kept back", rangeWithReserve, "distance")}
        {explained("Usable energy", capacity, "energy")}
        {movingS === null || meanSpeedMps === null ? null : (
          <Line
            name="Moving"
            value={`${Math.floor(movingS / 3600)} h ${String(Math.round((movingS % 3600) / 60)).padStart(2, "0")}`}
            because={`${formatQuantity(meanSpeedMps, "speed", system)} on average while moving, by the track`}
          />
        )}
      </dl>
    </section>
  );
}

const formatPercent = (share: number) => `${fixed(share * 100, 0)} %`;

/** What the plus-or-minus is made of, each source by the variance it would take with it. */
export function Doubt({ results }: { readonly results: StripResults }) {
  const whole = results.budget.reduce((sum, { variance }) => sum + variance, 0);
  const worst = results.budget[0]?.variance ?? 1;
  const { error, unit } = writeUncertain(results.best.value, "energyPerDistance", useSystem());
  return (
    <div className="max-w-2xl">
      <p className="mb-3 text-quiet">
        Were a source known exactly, the variance of the Wh/mi would fall by its share. The whole is ± {error}{" "}
        {unit}.
      </p>
      <table className="table w-full">
        <thead>
          <tr>
            <th>Source</th>
            <th className="w-1/2">
              <span className="sr-only">Share drawn</span>
            </th>
            <th className="number">Share</th>
          </tr>
        </thead>
        <tbody>
          {results.budget
            .filter(({ variance }) => variance > whole / 200)
            .map(({ source, variance }) => (
              <tr key={source}>
                <td>{sourceWords(source)}</td>
                <td>
                  <div className="h-3 bg-ochre-fill" style={{ width: `${(100 * variance) / worst}%` }} />
                </td>
                <td className="number">{formatPercent(variance / whole)}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  );
}

/** Level by ground: the energy each part of the ride took over its miles. */
export function Parts({ results }: { readonly results: StripResults }) {
  const system = useSystem();
  return (
    <table className="table w-full max-w-2xl">
      <thead>
        <tr>
          <th>Level</th>
          <th>Ground</th>
          <th className="number">Distance</th>
          <th className="number">Energy per distance</th>
        </tr>
      </thead>
      <tbody>
        {results.parts.map(({ level, ground, distanceM, whPerM }) => (
          <tr key={`${level}/${ground}`}>
            <td>{level}</td>
            <td>{ground}</td>
            <td className="number">{formatQuantity(distanceM, "distance", system)}</td>
            <td className="number">
              {whPerM ? (
                <Figure value={whPerM} dimension="energyPerDistance" />
              ) : (
                <span className="pencil">not told apart</span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
