import { z } from "zod";
import { type System } from "#core/base";
import { instrumentSchema, type Instrument } from "#core/records";
import { choice, pencilText, quantityText, readInto, shareText, words } from "#app/ui/formText";

import { shown, type Texts } from "./texts";

const percent = (share: number | undefined) =>
  share === undefined ? "" : `${Number((100 * share).toFixed(2))} %`;

export const instrumentForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      kind: choice,
      gainSd: shareText,
      eta: shareText,
      etaSd: shareText,
      amps: quantityText("current", system),
      note: words,
      pencil: pencilText,
    }),
    instrumentSchema,
  );
export const INSTRUMENT_FIELDS = ["name", "kind", "gainSd", "eta", "etaSd", "amps", "note"] as const;
export const NEW_INSTRUMENT: Instrument = { name: "", kind: "energy meter", note: "", pencil: [] };
export const instrumentTexts = (instrument: Instrument, system: System): Texts => ({
  name: instrument.name,
  kind: instrument.kind,
  gainSd: percent(instrument.gainSd),
  eta: percent(instrument.eta),
  etaSd: percent(instrument.etaSd),
  amps: shown(instrument.amps, "current", system),
  note: instrument.note,
});
