import { lazy } from "react";
import { href, Link } from "react-router";
import type { packHistory, PackHistory } from "#core/analysis";
import type { usableEnergy } from "#core/battery";
import { dayText, fixed, formatQuantity, formatUncertain } from "#core/base";
import type { Bench, PackRecord } from "#core/records";
import { useSpoken, useSystem } from "#ui/system";
import { Chart } from "#ui/charts/chart";

const CapacityChart = lazy(() => import("./capacity"));

const saysCapacity = ({ points }: PackHistory) =>
  `Capacity in percent of the label: ${points.map(({ day, share }) => `${fixed(100 * share.mean, 0)} % on ${day}`).join(", ")}`;

type Usable = Extract<ReturnType<typeof usableEnergy>, { ok: true }>["value"];

interface PackCardProps {
  readonly bikeId: string;
  readonly pack: PackRecord & {
    readonly id: string;
    readonly benches: readonly (Bench & { readonly id: string })[];
    /** Printed energy, Wh. */
    readonly label: number | null;
    readonly usable: Usable | null;
    readonly history: ReturnType<typeof packHistory>;
  };
}

/** A pack of a bike: what its label says, what it still holds, its bench tests. */
export function PackCard({ bikeId, pack }: PackCardProps) {
  const system = useSystem();
  const spoken = useSpoken();
  return (
    <div className="sheet p-4">
      <Link to={href("/bikes/:bikeId/packs/:packId", { bikeId, packId: pack.id })} className="font-bold">
        {pack.name}
      </Link>
      <p className="text-sm text-quiet">
        {[
          pack.chemistry,
          pack.seriesCells && `${pack.seriesCells} cells in series`,
          pack.ampHours && formatQuantity(pack.ampHours, "charge", system),
          pack.label && `label ${formatQuantity(pack.label, "energy", system)}`,
        ]
          .filter(Boolean)
          .join(", ")}
      </p>
      {pack.usable ? (
        <p className={`mt-2 ${pack.usable.from === "label" ? "pencil" : ""}`}>
          {formatUncertain(pack.usable, "energy", system)} usable
          <span className="text-sm">
            {pack.usable.from === "label" ? ", assumed from the label" : ", measured"}
          </span>
        </p>
      ) : null}
      {pack.history ? (
        <>
          {pack.history.points.length + pack.history.expected.length > 1 && pack.history.points.length > 0 ? (
            <Chart height={160} className="mt-2 max-w-md" label={saysCapacity(pack.history)}>
              <CapacityChart history={pack.history} />
            </Chart>
          ) : null}
          <p className="mt-1 text-sm text-quiet">{spoken(pack.history.sentence)}</p>
        </>
      ) : null}
      <ul className="mt-2 text-sm">
        {pack.benches.map((bench) => (
          <li key={bench.id}>
            <Link
              to={href("/bikes/:bikeId/packs/:packId/bench/:benchId/sheet", {
                bikeId,
                packId: pack.id,
                benchId: bench.id,
              })}
            >
              Bench sheet, {dayText(bench.on)}
            </Link>
          </li>
        ))}
        <li>
          <Link
            to={href("/bikes/:bikeId/packs/:packId/bench/:benchId", {
              bikeId,
              packId: pack.id,
              benchId: "new",
            })}
          >
            Record a bench test
          </Link>
        </li>
      </ul>
    </div>
  );
}
