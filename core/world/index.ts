export { rngFrom, type Rng } from "./chance.ts";
export { idsFrom } from "./ids.ts";
export { KINDS, type KindName } from "./kinds.ts";
export { makeTest, type Truth, type WorldGiven, type WorldTest } from "./make.ts";
export { DESK_TOLD, makeDesk, type Desk, type DeskOptions, type DeskTest } from "./desk.ts";
