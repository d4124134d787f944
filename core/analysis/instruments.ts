import type { Reading } from "#core/battery/readings";
import { instrumentNamed, type Instrument } from "#core/records";

/** Name of the meter, logger or charger that gave a reading. */
function nameIn(reading: Reading): string | undefined {
  if (reading.kind === "energyCounter") return reading.meter;
  if (reading.kind === "telemetry") return reading.logger;
  if (reading.kind === "wallRefill" || reading.kind === "wallCharge") return reading.charger;
  return undefined;
}

/** A reading with the errors of the desk's instrument of that name; as it was when the desk has none. */
export function byInstrument(reading: Reading, instruments: readonly Instrument[]): Reading {
  const name = nameIn(reading);
  const found = name === undefined ? undefined : instrumentNamed(instruments, name);
  if (!found) return reading;
  const { gainSd, eta, etaSd } = found;
  if (reading.kind === "energyCounter" || reading.kind === "telemetry")
    return gainSd === undefined ? reading : { ...reading, gainSd };
  return {
    ...reading,
    ...(eta !== undefined && { eta }),
    ...(etaSd !== undefined && { etaSd }),
  } as Reading;
}
