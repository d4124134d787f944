export { readLine } from "./read.ts";
export { type LineSetting } from "./reader.ts";
export { writeLine } from "./write.ts";
