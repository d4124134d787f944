export { HARD_KINDS, type HardKindName } from "./kinds.ts";
export { makeHardTest, type HardTest, type HardTruth } from "./make.ts";
export type { HardSlip } from "./slips.ts";
