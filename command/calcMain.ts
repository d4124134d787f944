import { calc } from "./calc.ts";

/** The core by itself, as one bundled file: ./barometron starts it at once. */
process.exitCode = calc(process.argv[2]);
