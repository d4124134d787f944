import { href, Link } from "react-router";
import { verdictText } from "#core/compare";
import {
  fixed,
  formatQuantity,
  formatUncertain,
  fromSi,
  halfWidth95,
  spanOf,
  spanText,
  toSi,
  type Estimate,
  unitOf,
} from "#core/base";
import { useSpoken, useSystem } from "#ui/system";
import type { ClaimedBike } from "#app/services/comparison/claims.server";
import { SettleList } from "./settleList";

const VERDICT_CLASS = { exceeded: "", met: "", open: "", "not met": "text-rust" } as const;

/** A span with its middle, over the page's mile rule. */
function SpanBar({
  value,
  most,
  filled,
}: {
  readonly value: Estimate;
  readonly most: number;
  readonly filled: boolean;
}) {
  const span = spanOf(value);
  const percent = (metres: number) => `${(100 * Math.min(metres, most)) / most}%`;
  return (
    <div className="relative h-4">
      <div
        className="absolute top-1/2 h-0.5 -translate-y-1/2 bg-spruce"
        style={{ left: percent(span.low), width: percent(Math.min(span.high, most) - span.low) }}
      />
      <div
        className={`absolute top-1/2 size-3 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-spruce ${filled ? "bg-spruce" : "bg-bone"}`}
        style={{ left: percent(value.mean) }}
      />
    </div>
  );
}

/** The claimed spans, the range as ridden and under the reference, over one mile rule. */
function ClaimBar({ bike, most }: { readonly bike: ClaimedBike; readonly most: number }) {
  const percent = (metres: number) => `${(100 * Math.max(0, metres)) / most}%`;
  return (
    <div className="grid gap-1" aria-hidden>
      {bike.reports.map(({ claim, lines }, i) => (
        <div key={i} className="relative h-3 border-b border-rule">
          <div
            className={`absolute inset-y-0 border border-slate ${lines.every(({ verdict }) => verdict === "not met") ? "bg-sheet" : "bg-tint"}`}
            style={{ left: percent(claim.lowM), width: `max(3px, ${percent(claim.highM - claim.lowM)})` }}
          />
        </div>
      ))}
      {bike.ridden ? (
        <div className="relative">
          <SpanBar value={bike.ridden} most={most} filled />
          {bike.plainM === null ? null : (
            <div className="absolute inset-y-0 w-0.5 bg-slate" style={{ left: percent(bike.plainM) }} />
          )}
        </div>
      ) : null}
      <SpanBar value={bike.range} most={most} filled={false} />
    </div>
  );
}

/** What other packs would add, and what the current costs. */
function PackOptions({ bike, tariff }: { readonly bike: ClaimedBike; readonly tariff: number }) {
  const system = useSystem();
  const money = (minorPerM: number) =>
    `${fixed(fromSi(minorPerM, "pricePerDistance", unitOf("pricePerDistance", system)), 2)} ${bike.currency}`;
  const per = unitOf("distance", system);
  const hundred = toSi(100, "distance", per)!;
  return (
    <ul className="text-sm">
      {bike.options.map(({ option, rangeM, addedM, perMetreMinor }) => (
        <li key={`${option.name}/${option.way}`} className="pencil">
          {option.name} {option.way}: {formatQuantity(rangeM, "distance", system, 0)},{" "}
          {formatQuantity(Math.abs(addedM), "distance", system, 0)} {addedM < 0 ? "less" : "more"}
          {option.addedMinor !== null && option.addedMinor !== 0
            ? `, ${fixed(Math.abs(option.addedMinor) / 100, 0)} ${bike.currency} ${option.addedMinor < 0 ? "less" : "more"}`
            : ""}
          {perMetreMinor !== null && perMetreMinor > 0
            ? `, ${money(perMetreMinor)} a ${per}`
            : option.addedMinor === null
              ? ", no price on file"
              : ""}
        </li>
      ))}
      <li>
        {fixed((bike.cost.mean * hundred) / 100, 2)} ± {fixed((halfWidth95(bike.cost) * hundred) / 100, 2)}{" "}
        {bike.currency} of electricity for 100 {per}, at {fixed(tariff / 100, 2)} a kWh
      </li>
    </ul>
  );
}

/** One bike against its claims, what other packs would add, and what the current costs. */
export function BikeClaims({
  bike,
  most,
  tariff,
  under,
}: {
  readonly bike: ClaimedBike;
  readonly most: number;
  readonly tariff: number;
  readonly under: string;
}) {
  const system = useSystem();
  const say = useSpoken();
  return (
    <section className="grid gap-x-8 gap-y-3 border-b border-rule py-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <div>
        <h2>
          <Link to={href("/compare/bikes/:bikeId", { bikeId: bike.bikeId })}>{bike.bike}</Link>
          {bike.drive === "throttle" ? ", throttle" : ""}
        </h2>
        <p className="text-sm text-quiet">
          {bike.ridden ? `${spanText(bike.ridden, "distance", system)} as ridden, ` : ""}
          {spanText(bike.range, "distance", system)} {under}, on the {bike.packName};{" "}
          {formatUncertain(bike.whPerM, "energyPerDistance", system)} {under},{" "}
          {bike.tests === 1 ? "one test" : `${bike.tests} tests`}
        </p>
        {bike.reports.length ? (
          <Link
            to={`${href("/sheet/cards/:kind", { kind: "claim" })}?${new URLSearchParams({ bike: bike.bikeId, drive: bike.drive })}`}
            aria-label={`Card of the claims of ${bike.bike}, ${bike.drive}`}
            className="text-sm print:hidden"
          >
            Card for a film
          </Link>
        ) : null}
        <div className="mt-3">
          <ClaimBar bike={bike} most={most} />
        </div>
      </div>
      <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
        {bike.reports.length ? (
          bike.reports.map(({ claim, low, high, lines, needs }, i) => (
            <div key={i}>
              {claim.mode ? <p className="font-bold">{claim.mode}</p> : null}
              {lines.map(({ under: conditions, verdict, certainty, sentence }) => (
                <p key={conditions}>
                  <b className={VERDICT_CLASS[verdict]}>{verdictText({ verdict, certainty })}</b>.{" "}
                  {say(sentence)}
                </p>
              ))}
              {needs.length ? <p>{say(needs.join(" "))}</p> : null}
              <p className="text-sm text-quiet">
                It implies {formatQuantity(high.impliedWhPerM, "energyPerDistance", system)}
                {low.impliedWhPerM === high.impliedWhPerM
                  ? ""
                  : ` to ${formatQuantity(low.impliedWhPerM, "energyPerDistance", system)}`}
                ; {under} it takes {fixed(low.ratio, 2)}
                {low.ratio === high.ratio ? "" : ` to ${fixed(high.ratio, 2)}`} times that. Conditions:{" "}
                {claim.conditions || "not stated"}.
              </p>
            </div>
          ))
        ) : (
          <p className="text-quiet">No claim is on file for this drive.</p>
        )}
        {bike.settles.length ? (
          <div className="text-sm">
            <h3 className="font-bold">What would decide it {under}</h3>
            <SettleList sd={bike.rangeSd} dimension="distance" settles={bike.settles} />
          </div>
        ) : null}
        <PackOptions bike={bike} tariff={tariff} />
      </div>
    </section>
  );
}
