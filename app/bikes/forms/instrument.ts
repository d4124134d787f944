import type { System } from "#core/base";
import { INSTRUMENT_FIELDS, instrumentSchema, type Instrument } from "#core/records";
import { recordForm, recordTexts, type Texts } from "#app/ui/forms/record";

export const instrumentForm = (system: System) => recordForm(INSTRUMENT_FIELDS, instrumentSchema, system);
export const NEW_INSTRUMENT: Instrument = {
  name: "",
  kind: "energy meter",
  note: "",
  formerNames: [],
  pencil: [],
};
export const instrumentTexts = (instrument: Instrument, system: System): Texts =>
  recordTexts(INSTRUMENT_FIELDS, instrument, system);
