export { HARD_KINDS, type HardKindName } from "./kinds.ts";
export { makeHardTest, type HardTest, type HardTruth } from "./make.ts";
export type { HardSlip } from "./slips.ts";
export {
  DESK_TOLD,
  makeHardDesk,
  type DeskTold,
  type HardDesk,
  type HardDeskOptions,
  type HardDeskTest,
} from "./desk.ts";
