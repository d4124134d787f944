import type { ReactNode } from "react";
import { href, Link } from "react-router";
import { claimText } from "#app/ui/claim";
import { fixed, forField, formatQuantity } from "#core/base";
import type { Bike } from "#core/records";
import { useSystem } from "#ui/system";

type KeptBike = Bike & { readonly id: string; readonly archived: boolean };

function Fact({
  name,
  pencil = false,
  children,
}: {
  readonly name: string;
  readonly pencil?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <div className="flex justify-between gap-4 border-b border-rule py-2">
      <dt className="text-quiet">{name}</dt>
      <dd className={`text-right ${pencil ? "pencil" : ""}`}>{children}</dd>
    </div>
  );
}

/** What a percent gauge goes by, in words. */
const COUNTS: Readonly<Record<KeptBike["counts"], string>> = {
  charge: "follows amp-hours",
  energy: "follows watt-hours",
  volts: "follows the volts",
};

function DisplayFacts({ bike }: { readonly bike: KeptBike }) {
  const assumed = (name: string) => bike.pencil.includes(name);
  return (
    <>
      <Fact name="Percent" pencil={assumed("percentStep")}>
        {bike.percentStep ? `shows ${forField(bike.percentStep)} % steps, ${COUNTS[bike.counts]}` : "none"}
      </Fact>
      <Fact name={bike.barsAre === "bars" ? "Bars" : "Lamp colours"} pencil={assumed("bars")}>
        {bike.bars || "none"}
      </Fact>
      <Fact name="Volts" pencil={assumed("meterStepV")}>
        {bike.meterStepV ? `shows ${forField(bike.meterStepV)} V steps` : "none"}
      </Fact>
      <Fact name="Power shown" pencil={assumed("powerShown")}>
        {bike.powerShown}
      </Fact>
    </>
  );
}

function ClaimFacts({ bike }: { readonly bike: KeptBike }) {
  const system = useSystem();
  return (
    <>
      <Fact name="Claimed range" pencil={bike.pencil.includes("claims")}>
        {bike.claims.length === 0 ? <span className="pencil">none noted</span> : null}
        {bike.claims.map((claim) => (
          <div key={`${claim.mode} ${claim.lowM}`}>
            {claim.mode ? `${claim.mode}: ` : ""}
            {claimText(claim, system)}
            <div className="text-sm text-quiet">{claim.conditions || "conditions not stated"}</div>
          </div>
        ))}
      </Fact>
      {bike.reported.length ? (
        <Fact name="Others found">
          {bike.reported.map(({ by, drive, of, distanceM, energyWh }) => (
            <div key={`${by} ${distanceM} ${energyWh}`}>
              {by ? `${by}: ` : ""}
              {drive === "throttle" ? "throttle, " : ""}
              {of === "climb"
                ? `${formatQuantity(distanceM, "climb", system)} of climb`
                : formatQuantity(distanceM, "distance", system, 0)}{" "}
              on {formatQuantity(energyWh, "energy", system)}
              {of === "climb" ? `, ${fixed(energyWh / distanceM, 2)} Wh for each metre up` : ""}
            </div>
          ))}
        </Fact>
      ) : null}
    </>
  );
}

/** Everything noted of a bike but its packs and set-ups. */
export function BikeFacts({ bike }: { readonly bike: KeptBike }) {
  const system = useSystem();
  const assumed = (name: string) => bike.pencil.includes(name);
  const show = (value: number | undefined, write: (value: number) => string, missing: string) =>
    value === undefined ? <span className="pencil">{missing}</span> : write(value);
  return (
    <aside className="sheet h-fit p-4">
      <div className="flex items-center justify-between">
        <h2>Facts</h2>
        <Link to={href("/bikes/:bikeId/edit", { bikeId: bike.id })}>Change</Link>
      </div>
      <p className="mb-1 text-sm">
        <Link to={href("/bikes/:bikeId/gauge", { bikeId: bike.id })}>What its gauge really says</Link>
      </p>
      <dl>
        <Fact name="Weight">
          {show(bike.massKg, (kg) => formatQuantity(kg, "mass", system), "not weighed")}
          {bike.massWithoutPackKg === undefined ? null : (
            <div className="text-sm text-quiet">
              {formatQuantity(bike.massWithoutPackKg, "mass", system)} without its pack
            </div>
          )}
        </Fact>
        <Fact name="Motor" pencil={assumed("motor")}>
          {bike.motor === "hub" ? "hub motor" : "mid motor"}
          {bike.motorW === undefined ? "" : `, ${bike.motorW} W`}
          {bike.sensor === "not noted" ? "" : `, ${bike.sensor} sensor`}
        </Fact>
        <Fact name="Assist stops at" pencil={assumed("assistToMps")}>
          {show(bike.assistToMps, (mps) => formatQuantity(mps, "speed", system), "not noted")}
        </Fact>
        <Fact name="Levels" pencil={assumed("levels")}>
          {bike.levels
            .map((name, i) =>
              bike.levelShares.length ? `${name} ${fixed(100 * bike.levelShares[i]!, 0)} %` : name,
            )
            .join(", ")}
          {bike.throttle ? ", throttle" : ""}
        </Fact>
        <DisplayFacts bike={bike} />
        <Fact name="Wheel setting">
          {show(bike.wheelCircumferenceM, (m) => formatQuantity(m, "length", system), "not noted")}
        </Fact>
        <ClaimFacts bike={bike} />
        <Fact name="Brakes">{bike.brakes || <span className="pencil">not noted</span>}</Fact>
        {bike.comfort ? <Fact name="Comfort">{bike.comfort}</Fact> : null}
        <Fact name="Price" pencil={assumed("priceMinor")}>
          {show(bike.priceMinor, (minor) => `${fixed(minor / 100, 0)} ${bike.currency}`, "not noted")}
        </Fact>
      </dl>
    </aside>
  );
}
