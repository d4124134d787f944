import { z } from "zod";
import { type System } from "#core/base";
import { riderSchema, type Rider } from "#core/records";
import { choice, numberText, pencilText, readInto, weightText, words } from "#app/ui/formText";

import { plain, shown, type Texts } from "./texts";

const LIGHTEST_RIDER_KG = 38;
const HEAVIEST_RIDER_KG = 150;

export const riderForm = (system: System) =>
  readInto(
    z.object({
      name: choice,
      massKg: weightText("a dressed rider", LIGHTEST_RIDER_KG, HEAVIEST_RIDER_KG, system),
      lowBpm: numberText,
      lowW: numberText,
      highBpm: numberText,
      highW: numberText,
      note: words,
      pencil: pencilText,
    }),
    riderSchema,
  );
export const RIDER_FIELDS = ["name", "massKg", "lowBpm", "lowW", "highBpm", "highW", "note"] as const;
export const NEW_RIDER: Rider = { name: "", note: "", pencil: [] };
export const riderTexts = (rider: Rider, system: System): Texts => ({
  name: rider.name,
  massKg: shown(rider.massKg, "mass", system),
  lowBpm: plain(rider.lowBpm),
  lowW: plain(rider.lowW),
  highBpm: plain(rider.highBpm),
  highW: plain(rider.highW),
  note: rider.note,
});
