import { energyFigure, usedBetween, type LedgerInput, type Solved } from "#core/estimation";

/** The ledger with a watt-hour meter on every ride that had none; null where all had. */
export function metered(input: LedgerInput, solved: Solved): LedgerInput | null {
  const counts = new Set(["energyCounter", "telemetry"]);
  const without = input.rides.filter(({ readings }) => !readings.some(({ kind }) => counts.has(kind)));
  if (without.length === 0) return null;
  return {
    ...input,
    rides: input.rides.map((ride, r) =>
      without.includes(ride)
        ? {
            ...ride,
            readings: [
              ...ride.readings,
              ...ride.legs.flatMap((leg, i) => {
                const wh = energyFigure(solved, r, usedBetween(solved, r, 0, i + 1)).mean;
                return leg.charged || ride.legs.slice(0, i).some(({ charged }) => charged)
                  ? []
                  : [
                      {
                        kind: "energyCounter" as const,
                        fromMark: 0,
                        toMark: i + 1,
                        wh,
                        stepWh: 1,
                        meter: "borrowed",
                      },
                    ];
              }),
            ],
          }
        : ride,
    ),
  };
}
