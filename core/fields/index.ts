export { exampleOf, type Field } from "./field.ts";
export {
  END_NAMES,
  ENDS,
  GROUND_WORDS,
  GROUNDS,
  groundSchema,
  SIDES,
  type End,
  type Ground,
  type Side,
} from "./vocabulary.ts";
export { eventOf, EVENTS, type EntryEvent } from "./events.ts";
export { endsOf, readTyped, spanned } from "./typed.ts";
export { SIGHTING, SIGHTING_FIELDS, sightingSchema, type Sighting, type SightingField } from "./sighting.ts";
export { choicesOf, recordField, shapeOf, type RecordField, type RecordFields } from "./record.ts";
