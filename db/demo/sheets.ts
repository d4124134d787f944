import { sheetOptionsSchema, type SheetOptions } from "#core/telling";

/** A page that the demo desk has: of one of its tests, of its bench test, or of the whole desk. All invented. */
export interface DemoSheet {
  readonly test?: string;
  readonly bench?: true;
  readonly pair?: readonly [string, string];
  readonly options: SheetOptions;
}

const WORDS = `Two levels on one charge, out along the marsh and home by the levee. The child seat stayed in the shed.

What stays with me:

- the sluice bridge is worth the stop
- past mile 40 *low* and *high* feel the same`;

export const SHEETS: readonly DemoSheet[] = [
  {
    test: "run-down on two levels",
    options: sheetOptionsSchema.parse({
      kind: "test",
      title: "Ondrey Hauler, run down on the marsh levee",
      words: WORDS,
      address: "https://barometron.example/sheets/hauler-levee",
    }),
  },
  {
    bench: true,
    options: sheetOptionsSchema.parse({
      kind: "customer",
      title: "Capacity of the frame pack, Ondrey Hauler",
      words: "Come back in a year, or sooner if the last bar goes early in the cold.",
    }),
  },
  {
    pair: ["levee loop, town level", "levee loop, winter tyres"],
    options: sheetOptionsSchema.parse({
      kind: "comparison",
      title: "Five bikes on one harbour front",
      under: "House",
      off: ["readings", "sweeps"],
    }),
  },
];
