import { z } from "zod";
import { type System } from "#core/base";
import { setUpSchema, type SetUp } from "#core/records";
import { choice, pencilText, quantityText, readInto, tick, words } from "#app/ui/formText";

import { on, shown, type Texts } from "./texts";

export const setUpForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      since: choice,
      tyre: words,
      tyreClass: choice,
      tyreWidthM: quantityText("length", system),
      pressurePa: quantityText("pressure", system),
      maxPressurePa: quantityText("pressure", system),
      posture: choice,
      lightsOn: tick,
      carriedKg: quantityText("mass", system).transform((kg) => kg ?? 0),
      changed: words,
      pencil: pencilText,
    }),
    setUpSchema,
  );

export const SET_UP_FIELDS = [
  "name",
  "since",
  "tyre",
  "tyreClass",
  "tyreWidthM",
  "pressurePa",
  "maxPressurePa",
  "posture",
  "lightsOn",
  "carriedKg",
  "changed",
] as const;
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

export function setUpTexts(setUp: SetUp, system: System): Texts {
  return {
    name: setUp.name,
    since: setUp.since ?? "",
    tyre: setUp.tyre,
    tyreClass: setUp.tyreClass,
    tyreWidthM: shown(setUp.tyreWidthM, "length", system),
    pressurePa: shown(setUp.pressurePa, "pressure", system),
    maxPressurePa: shown(setUp.maxPressurePa, "pressure", system),
    posture: setUp.posture,
    lightsOn: on(setUp.lightsOn),
    carriedKg: shown(setUp.carriedKg, "mass", system),
    changed: setUp.changed,
  };
}
