export { readLine, type ReadLine } from "./read.ts";
export { type Chip, type LineSetting, type Unread } from "./reader.ts";
export { writeLine } from "./write.ts";
