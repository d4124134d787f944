import type { System } from "#core/base";
import { SET_UP_FIELDS, setUpSchema, type SetUp } from "#core/records";
import { recordForm, recordTexts, type Texts } from "#app/ui/forms/record";

export const setUpForm = (system: System) => recordForm(SET_UP_FIELDS, setUpSchema, system);

export const NEW_SET_UP: SetUp = {
  name: "",
  tyre: "",
  tyreClass: "city",
  posture: "upright",
  lightsOn: false,
  carriedKg: 0,
  changed: "",
  pencil: ["tyreClass", "posture", "carriedKg"],
};

export const setUpTexts = (setUp: SetUp, system: System): Texts => recordTexts(SET_UP_FIELDS, setUp, system);
