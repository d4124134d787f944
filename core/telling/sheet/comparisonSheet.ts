import {
  estimateToken,
  fixed,
  halfWidth95,
  spanOf,
  unitToken,
  type DimensionName,
  type Estimate,
} from "#core/base";
import { lessText, type ClimbFigures, type JointPair, type SweepSpot } from "#core/compare";
import {
  paragraph,
  photographsBlock,
  sectionOf,
  type SheetBlock,
  type SheetDocument,
  type SheetPhotograph,
} from "./document.ts";
import { claimsBlock, type ClaimsOf } from "./claims.ts";
import { asSentence, countText } from "./facts.ts";
import { isOn, type SheetOptions } from "./options.ts";

/** A place in the standings of a page. */
export interface SheetPlace {
  /** Least and most place that it may have: those it is not told apart from share them. */
  readonly from: number;
  readonly to: number;
  readonly name: string;
  readonly value: Estimate;
  /** What the desk knows so little of that the figure is a sketch. */
  readonly beyond: readonly string[];
  readonly questions: number;
  /** Drawn hollow: a sketch, reckoned from no reading, or with a reading in question. */
  readonly hollow: boolean;
}

/** What a comparison's page is made from. */
export interface ComparisonSheetInput {
  /** "under House 3", or "as ridden". */
  readonly under: string;
  readonly measure: DimensionName;
  readonly photographs: readonly SheetPhotograph[];
  readonly places: readonly SheetPlace[];
  /** Tests without a figure there, with why. */
  readonly left: readonly { readonly name: string; readonly why: string }[];
  readonly pair: { readonly a: string; readonly b: string; readonly joint: JointPair } | null;
  readonly claims: readonly ClaimsOf[];
  readonly ranges: readonly {
    readonly bike: string;
    readonly rows: readonly {
      readonly level: string;
      readonly ground: string;
      readonly seasons: readonly {
        readonly name: string;
        readonly tempC: number;
        readonly total: Estimate;
      }[];
    }[];
  }[];
  readonly sweeps: readonly { readonly name: string; readonly spots: readonly SweepSpot[] }[];
  readonly hills: readonly {
    readonly hill: string;
    readonly runs: readonly { readonly name: string; readonly figures: ClimbFigures }[];
  }[];
}

function standingsBlocks({ places, measure, under }: ComparisonSheetInput): readonly (SheetBlock | null)[] {
  if (places.length === 0) return [];
  return [
    { kind: "drawing", name: "standings", shows: `Each figure ${under} as a dot with its 95 % span.` },
    {
      kind: "table",
      caption: `Standings ${under}`,
      headings: ["Place", "Bike", "Figure"],
      rows: places.map(({ from, to, name, value }) => [
        from === to ? `${from}` : `${from} to ${to}`,
        name,
        estimateToken(value, measure),
      ]),
    },
  ];
}

function pairBlocks(pair: NonNullable<ComparisonSheetInput["pair"]>): readonly (SheetBlock | null)[] {
  const { joint, a, b } = pair;
  const { difference, chanceA } = joint.whole;
  return [
    {
      kind: "figures",
      figures: [
        {
          key: "difference",
          value: difference,
          dimension: "energyPerDistance",
          says: `${a} less ${b}`,
          pencil: false,
          signed: true,
        },
      ],
    },
    paragraph([
      lessText(chanceA, a, b, "used"),
      joint.rounding.sentence,
      ...(joint.lastBar ? [joint.lastBar] : []),
      ...(joint.orderWarning ? [joint.orderWarning] : []),
    ]),
  ];
}

/** A range whose sd is a larger part of it than this is told by nothing. */
const UNTOLD = 0.35;

/** Whether a range is known well enough to be told. */
export const isTold = ({ mean, sd }: Estimate): boolean => mean > 0 && sd / mean <= UNTOLD;

/** "27 mi to 33 mi", a span to be read out; where it would span anything, that. */
function rangeText(range: Estimate): string {
  if (!isTold(range)) return "not told yet";
  const { low, high } = spanOf(range);
  return `${unitToken(low, "distance", 0)} to ${unitToken(high, "distance", 0)}`;
}

const rangeTables = ({ ranges }: ComparisonSheetInput): readonly SheetBlock[] =>
  ranges.flatMap(({ bike, rows }) => {
    const [first] = rows;
    return first
      ? [
          {
            kind: "table" as const,
            caption: `Range of ${bike}, by season`,
            headings: ["Level", "Ground", ...first.seasons.map(({ name }) => name)],
            rows: rows.map(({ level, ground, seasons }) => [
              level,
              ground,
              ...first.seasons.map(({ name }) => {
                const found = seasons.find((each) => each.name === name);
                return found ? rangeText(found.total) : "";
              }),
            ]),
          },
        ]
      : [];
  });

const sweepTables = ({ sweeps }: ComparisonSheetInput): readonly SheetBlock[] =>
  sweeps
    .filter(({ spots }) => spots.length > 0)
    .map(({ name, spots }) => ({
      kind: "table",
      caption: name,
      headings: ["Level", "Ground", "Speed", "Use", "Ways"],
      rows: spots.map(({ level, ground, speedMps, whPerM, oneWay }) => [
        level,
        ground,
        unitToken(speedMps, "speed", 1),
        estimateToken(whPerM, "energyPerDistance"),
        oneWay ? "one" : "both",
      ]),
    }));

const climbTables = ({ hills }: ComparisonSheetInput): readonly SheetBlock[] =>
  hills.map(({ hill, runs }) => ({
    kind: "table",
    caption: `Up ${hill}`,
    headings: ["Bike", "Speed", "Up in an hour", "Energy a metre up"],
    rows: runs.map(({ name, figures }) => [
      name,
      unitToken(figures.speedMps, "speed", 1),
      unitToken(figures.verticalMPerHour, "climb", 0),
      figures.whPerVerticalM
        ? `${fixed(figures.whPerVerticalM.mean, 2)} ± ${fixed(halfWidth95(figures.whPerVerticalM), 2)} Wh`
        : "timed alone",
    ]),
  }));

function caveats({ places, left, under }: ComparisonSheetInput): readonly string[] {
  const shared = places.filter(({ from, to }) => from !== to).length;
  const sketches = places.filter(({ beyond }) => beyond.length > 0);
  const questioned = places.filter(({ questions }) => questions > 0);
  return [
    ...(shared > 0
      ? [
          "Where places are a span, such as 1 to 4, those bikes cannot be told apart: their order is no finding.",
        ]
      : []),
    ...sketches.map(
      ({ name, beyond }) =>
        `${name} is a sketch ${under}: the desk knows too little of ${beyond.join(", ")}.`,
    ),
    ...questioned.map(
      ({ name, questions }) =>
        `${name}: ${countText(questions, "reading is", "readings are")} in question and ${questions === 1 ? "counts" : "count"} by the odds that ${questions === 1 ? "it is" : "each is"} no slip.`,
    ),
    ...left.map(({ name, why }) => `${name} is not among them: ${asSentence(why)}`),
  ];
}

/** The page of a comparison: standings, a pair, claims, ranges, sweeps and climbs as they stand under one set of conditions. */
export function comparisonSheet(input: ComparisonSheetInput, options: SheetOptions): SheetDocument {
  const sections = [
    ...sectionOf("standings", `Standings ${input.under}`, ...standingsBlocks(input)),
    ...(input.pair
      ? sectionOf("pair", `${input.pair.a} and ${input.pair.b}`, ...pairBlocks(input.pair))
      : []),
    ...sectionOf("claims", "What is claimed", claimsBlock(input.claims)),
    ...sectionOf("ranges", "How far", ...rangeTables(input)),
    ...sectionOf("sweeps", "What speed costs", ...sweepTables(input)),
    ...sectionOf("climbs", "Climbs", ...climbTables(input)),
    ...sectionOf("words", null, options.words.trim() ? { kind: "words", markdown: options.words } : null),
    ...sectionOf("photographs", null, photographsBlock(input.photographs)),
    ...sectionOf(
      "caveats",
      "What to know of it",
      caveats(input).length ? { kind: "list", items: caveats(input) } : null,
    ),
    ...sectionOf("address", null, options.address ? { kind: "address", address: options.address } : null),
  ];
  return {
    kind: "comparison",
    title: options.title,
    line:
      input.places.length === 0
        ? `No test has a figure ${input.under} yet.`
        : `${asSentence(countText(input.places.length, "figure")).slice(0, -1)} ${input.under}, each with the span that holds the truth 95 times in 100`,
    sections: sections.filter(({ key }) => isOn(options, key)),
  };
}
