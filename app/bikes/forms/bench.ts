import type { System } from "#core/base";
import { BENCH_FIELDS, benchSchema, type Bench } from "#core/records";
import { recordForm, recordTexts, type OwnFields, type Texts } from "#app/ui/forms/record";
import { quantityText, words } from "#app/ui/forms/formText";

const OWN: OwnFields<Bench> = {
  hours: {
    read: (system) =>
      quantityText("duration", system, "h").transform((s) => (s === undefined ? undefined : s / 3600)),
    written: ({ hours }) => (hours === undefined ? "" : `${hours} h`),
  },
  errors: { read: () => words, written: ({ errors }) => errors ?? "" },
};

export const benchForm = (system: System) => recordForm(BENCH_FIELDS, benchSchema, system, OWN as never);

/** A bench discharge as its form's texts; a new one is of today. */
export const benchTexts = (bench: Bench | null, today: string, system: System): Texts =>
  recordTexts<Bench>(BENCH_FIELDS, bench ?? { on: today }, system, OWN);
