import type { System } from "#core/base";
import { RIDER_FIELDS, riderSchema, type Rider } from "#core/records";
import { recordForm, recordTexts, type Texts } from "#app/ui/forms/record";

export const riderForm = (system: System) => recordForm(RIDER_FIELDS, riderSchema, system);
export const NEW_RIDER: Rider = { name: "", note: "", pencil: [] };
export const riderTexts = (rider: Rider, system: System): Texts => recordTexts(RIDER_FIELDS, rider, system);
