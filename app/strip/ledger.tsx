import { memo, useState, type ReactNode } from "react";
import { Link } from "react-router";
import {
  fixed,
  formatBare,
  formatUncertain,
  fromSi,
  spanText,
  Z_95,
  unitOf,
  widenedText,
  writeNarrowing,
  type DimensionName,
} from "#core/base";
import { liveView } from "#core/live";
import type { Explained } from "#core/analysis";
import { useAnnounced } from "#ui/announce";
import { Figure } from "#ui/figure";
import { useSpoken, useSystem } from "#ui/system";
import { WhatIs, type OwnWord } from "#ui/whatIs";
import { minutesText } from "./tabs/doubt";
import type { StripResults } from "#app/services/strip/view";

interface LineProps {
  readonly name: string;
  readonly value: ReactNode;
  readonly because?: string | undefined;
  /** The arithmetic, unfolded on demand. */
  readonly how?: readonly string[];
  readonly pencil?: boolean;
  readonly slate?: boolean;
  /** The idea of one's own that it is. */
  readonly what?: OwnWord;
}

function Line({ name, value, because, how = [], pencil = false, slate = false, what }: LineProps) {
  const tone = pencil ? "pencil" : slate ? "text-slate" : "";
  return (
    <div className="grid grid-cols-[1fr_auto] items-baseline gap-x-3 border-t border-rule py-2.5">
      <dt className={tone}>
        {name}
        {pencil ? <span className="sr-only"> (assumed or worked out)</span> : null}
        {what ? <WhatIs word={what} /> : null}
      </dt>
      <dd className={`text-right font-medium whitespace-nowrap ${tone}`}>{value}</dd>
      {because ? (
        <dd className="col-span-2 text-sm text-quiet">
          <How of={name} because={because} lines={how} />
        </dd>
      ) : null}
    </div>
  );
}

interface HowProps {
  readonly of: string;
  readonly because: string;
  readonly lines: readonly string[];
  readonly children?: ReactNode;
}

/** Why a figure is as it is, with its arithmetic unfolded on demand. */
function How({ of, because, lines, children }: HowProps) {
  const spoken = useSpoken();
  if (lines.length === 0) return because;
  return (
    <details>
      <summary className="cursor-pointer list-none no-underline" aria-label={`How ${of} is reckoned`}>
        {because}{" "}
        <span className="text-spruce underline underline-offset-3 print:hidden">show the working</span>
      </summary>
      <div className="my-1.5 grid gap-1.5 border-l-2 border-rule pl-3 text-ink">
        {lines.map((line) => (
          <p key={line}>{spoken(line)}</p>
        ))}
      </div>
      {children}
    </details>
  );
}

/** Rows of the ledger, weightiest first: what each reading says, what the answer has there, and its share of the news. */
function Rows({ results }: { readonly results: StripResults }) {
  const system = useSystem();
  const spoken = useSpoken();
  const rows = results.readings
    .filter(({ row }) => row !== null)
    .sort((a, b) => b.row!.share - a.row!.share)
    .slice(0, ROWS_SHOWN);
  const part = (value: number, inWh: boolean) =>
    inWh ? `${fixed(value, 0)} Wh` : `${fixed(value * 100, 1)} %`;
  return (
    <div
      className="ledger-rows mt-2 mb-3 overflow-x-auto"
      tabIndex={0}
      role="region"
      aria-label="Rows of the ledger"
    >
      <table className="table w-full">
        <caption className="sr-only">Rows of the ledger, the one that counts most first</caption>
        <thead>
          <tr>
            <th scope="col">Reading, {unitOf("distance", system)}</th>
            <th scope="col" className="number">
              reading says
            </th>
            <th scope="col" className="number">
              we conclude
            </th>
            <th scope="col" className="number">
              how much it counts
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ rootId, field, kind, text, distanceM, row }) => (
            <tr key={`${rootId}/${field ?? kind}`}>
              <th scope="row">
                {spoken(text)}{" "}
                <span className="whitespace-nowrap text-quiet">
                  {formatBare(distanceM, "distance", system)}
                </span>
              </th>
              <td className="number">{part(row!.says, row!.inWh)}</td>
              <td className="number">{part(row!.answer, row!.inWh)}</td>
              <td className="number">{fixed(row!.share * 100, 0)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Rows of the ledger shown where a figure explains itself. */
const ROWS_SHOWN = 10;
/** A share of outrun miles worth a line. */
const OUTRUN_WORTH_SAYING = 0.02;

/** Paper arithmetic, and why it differs. */
function PlainLine({ results }: { readonly results: StripResults }) {
  const system = useSystem();
  const spoken = useSpoken();
  const { plain, plainMissing, difference } = results;
  return plain ? (
    <Line
      name="Plain"
      what="plain"
      value={`${formatBare(plain.whPerM, "energyPerDistance", system)} ${unitOf("energyPerDistance", system)}`}
      because={[plain.because, difference && spoken(difference)].filter(Boolean).join(". ")}
      slate
    />
  ) : (
    <Line name="Plain" value="none" because={plainMissing ?? undefined} slate />
  );
}

/** Where the motor was outrun so far that it counts. */
function Outrun({ share }: { readonly share: number | null }) {
  return share !== null && share > OUTRUN_WORTH_SAYING ? (
    <Line
      name="Motor outrun"
      value={`${fixed(100 * share, 0)} % of the way`}
      because="ridden faster than the motor helps: under a reference such miles do not count as frugal"
    />
  ) : null;
}

/** The ledger beside the strip: each figure with its plus-or-minus and its reason, down to the rows on demand. */
export const Ledger = memo(function Ledger({
  results,
  settled,
}: {
  readonly results: StripResults;
  readonly settled: boolean;
}) {
  const system = useSystem();
  const spoken = useSpoken();
  const [unfolded, setUnfolded] = useState(false);
  const { best, noted, widened } = results;
  useAnnounced(settled ? `Best ${formatUncertain(best.value, "energyPerDistance", system)}.` : null);
  const left = results.end.reason === null ? (liveView(results)?.toEnd ?? null) : null;
  const explained = (name: string, figure: Explained | null, dimension: DimensionName) =>
    figure ? (
      <Line
        name={name}
        value={formatUncertain(figure.value, dimension, system)}
        because={spoken(figure.because)}
        how={figure.how}
        pencil={figure.pencil}
      />
    ) : null;
  return (
    <section aria-label="Ledger" aria-busy={!settled} className="sheet h-fit p-5">
      <div className="flex flex-wrap justify-between gap-x-3 text-quiet">
        Best <WhatIs word="best" />
        {settled ? null : <span className="pencil text-sm">counted; being saved ...</span>}
      </div>
      <Figure value={best.value} dimension="energyPerDistance" pencil={best.pencil} large />
      <div className="mt-2 mb-3 text-sm text-quiet">
        <How
          of="best"
          because={`${best.because}. The true figure lies in this span 95 times in 100.${
            widened > 1.001
              ? ` The readings disagree more than their errors allow, so every ± is ${widenedText(widened)}.`
              : ""
          }`}
          lines={best.how}
        >
          <WhatIs word="ledger" />
          <Rows results={results} />
        </How>
      </div>
      <Other
        label={results.flags.length ? "Without what is in question" : "Without what is set aside"}
        value={results.bestWithoutFlags}
      />
      <Other label="With nothing set aside" value={results.bestWithStruck} />
      <button
        type="button"
        className="button mb-3 lg:hidden"
        aria-expanded={unfolded}
        onClick={() => setUnfolded(!unfolded)}
      >
        {unfolded ? "Fold the ledger" : "Plain, energy, distance, range"}
      </button>
      <dl className={unfolded ? "mt-3" : "hidden lg:block print:block"}>
        <PlainLine results={results} />
        {explained("Energy used", results.energy, "energy")}
        {explained("Distance", results.distance, "distance")}
        {explained("Range, total", results.rangeTotal, "distance")}
        {explained("to the end of full power", results.rangeFullPower, "distance")}
        {explained("with a fifth kept back", results.rangeWithReserve, "distance")}
        {left ? (
          <Line
            name="Way left, to the end"
            value={spanText(left, "distance", system)}
            because="from the last check-in on, at the rate so far; no end is noted"
            pencil
          />
        ) : null}
        {explained("Usable energy", results.capacity, "energy")}
        <Outrun share={noted.unassistedShare} />
      </dl>
      <SurerLine results={results} />
    </section>
  );
});

function Other({
  label,
  value,
}: {
  readonly label: string;
  readonly value: StripResults["bestWithoutFlags"];
}) {
  if (!value) return null;
  return (
    <p className="mb-3 border-l-4 border-ochre-fill pl-3">
      {label}:
      <br />
      <Figure value={value} dimension="energyPerDistance" pencil />
    </p>
  );
}

/** The quickest way to a smaller plus-or-minus. */
function SurerLine({ results }: { readonly results: StripResults }) {
  const system = useSystem();
  const [first] = results.surer;
  if (!first) return null;
  const unit = unitOf("energyPerDistance", system);
  const half = (sd: number) => fromSi(Z_95 * sd, "energyPerDistance", unit);
  const [now, then] = writeNarrowing(half(results.best.value.sd), half(first.sdLeft));
  return (
    <p className="border-t border-rule pt-2.5 text-sm">
      <b>Surer for {minutesText(first.minutes)} of work:</b> {first.what}; ± {now} becomes ± {then}.{" "}
      <Link to="?tab=doubt" preventScrollReset>
        More ways
      </Link>
    </p>
  );
}
