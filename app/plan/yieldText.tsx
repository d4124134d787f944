import type { PlanYield } from "#core/planning";
import {
  fixed,
  formatQuantity,
  halfWidth95,
  unitOf,
  writeUncertain,
  fromSi,
  errorDecimals,
  type System,
} from "#core/base";
import { useSystem } from "#ui/system";

/** "± 1.1 Wh/mi", "difference to ± 2.9 Wh/mi", or a bench's Wh. */
export function halfWidthText(will: PlanYield, system: System): string {
  if (will.comparison) {
    const unit = unitOf("energyPerDistance", system);
    const half = fromSi(halfWidth95({ mean: 0, sd: will.comparison.sd }), "energyPerDistance", unit);
    return `difference to ± ${fixed(half, Math.min(2, errorDecimals(half)))} ${unit}`;
  }
  if (will.bench) return `pack to ± ${writeUncertain(will.bench, "energy", system).error} Wh`;
  if (!will.whPerM) return "";
  const { error, unit } = writeUncertain(will.whPerM, "energyPerDistance", system);
  return `± ${error} ${unit}`;
}

/** Hours and charge that a plan costs, and the figure it is about. */
export function PriceLine({ will }: { readonly will: PlanYield }) {
  const system = useSystem();
  const hours = will.minutes / 60;
  return (
    <p className="text-sm">
      {fixed(hours, 1)} h, {fixed(100 * will.chargeShare, 0)} % of a charge
      {will.whPerM ? (
        <span className="text-quiet">
          , on about {formatQuantity(will.whPerM.mean, "energyPerDistance", system)}
        </span>
      ) : null}
    </p>
  );
}
