export { readLine, type Chip, type LineSetting, type ReadLine, type Unread } from "./read.ts";
export { writeLine } from "./write.ts";
