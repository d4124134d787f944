import { recordForm, recordTexts, type Texts } from "#app/ui/forms/record";
import type { System } from "#core/base";
import { CLIMB_FIELDS, climbSchema, type ClimbRecord } from "#core/records";

/** A climb's form: texts as typed, read into the record it becomes. */
export const climbForm = (system: System) => recordForm(CLIMB_FIELDS, climbSchema, system);

const UNSAID = { drive: "pedal", ground: "asphalt", effort: "easy" } as const;

/** A climb as its form's texts; what is not known yet is empty. */
export const climbTexts = (climb: Partial<ClimbRecord>, system: System): Texts =>
  recordTexts<ClimbRecord>(CLIMB_FIELDS, { ...UNSAID, ...climb }, system);
