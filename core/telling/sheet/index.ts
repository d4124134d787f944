export {
  figuresOf,
  SHEET_KINDS,
  type EditionBody,
  type SheetBlock,
  type SheetDocument,
  type SheetFigure,
  type SheetKind,
  type SheetLine,
  type SheetPhotograph,
  type SheetTable,
} from "./document.ts";
export { isOn, PAPERS, SECTIONS, sheetOptionsSchema, type Paper, type SheetOptions } from "./options.ts";
export { METHOD_RULES, methodOf } from "./method.ts";
export { CAVEAT_RULES, caveatsOf } from "./caveats.ts";
export { remarksByTopic, remarksOf, topicOf, TOPICS, type Remark } from "./remarks.ts";
export { headlineFigures, testSheet } from "./testSheet.ts";
export { customerSheet, hoursText } from "./customerSheet.ts";
export { comparisonSheet, type ComparisonSheetInput, type SheetPlace } from "./comparisonSheet.ts";
export { type ToldClaim } from "./claims.ts";
export { changesSince } from "./changes.ts";
export { sheetMarkdown } from "./asText.ts";
