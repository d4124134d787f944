import { recordForm, recordTexts, type Texts } from "#app/ui/forms/record";
import type { System } from "#core/base";
import type { Reference } from "#core/bike";
import { REFERENCE_FIELDS, referenceSchema } from "#core/records";

/** A reference's form: texts as typed, read into the record it becomes. */
export const referenceForm = (system: System) => recordForm(REFERENCE_FIELDS, referenceSchema, system);

const UNSAID = { ground: "asphalt", gainMPerMi: 0, stopsPerMi: 0, riderW: 0 } as const;

/** A reference as its form's texts. */
export const referenceTexts = ({ name, carriedKg, conditions }: Reference, system: System): Texts =>
  recordTexts(REFERENCE_FIELDS, { name, carriedKg, ...UNSAID, ...conditions }, system);
