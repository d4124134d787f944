import type { TestResults } from "#core/analysis";
import { estimateToken, unitToken, type Problem, type System } from "#core/base";
import { foldLog, writeLine } from "#core/ride/log";
import type { TestRecord } from "#core/records";
import { caveatsOf } from "./caveats.ts";
import { claimsBlock, type ToldClaim } from "./claims.ts";
import {
  paragraph,
  photographsBlock,
  sectionOf,
  type SheetBlock,
  type SheetDocument,
  type SheetFigure,
  type SheetPhotograph,
  type SheetSection,
} from "./document.ts";
import { asSentence, percentText } from "./facts.ts";
import { methodOf } from "./method.ts";
import { isOn, type SheetOptions } from "./options.ts";
import { remarksByTopic, remarksOf, remarksText } from "./remarks.ts";

/** What a test's page is made from. */
export interface TestSheetInput {
  readonly record: TestRecord;
  /** Null while there is no figure; `problems` then says why. */
  readonly results: TestResults | null;
  readonly problems: readonly Problem[];
  /** The claims of the bike against this test. */
  readonly claims: readonly ToldClaim[];
  readonly photographs: readonly SheetPhotograph[];
  /** Units of a log that is printed as it was noted. */
  readonly system: System;
}

/** Ways to make it surer that a page names. */
const MOST_WAYS = 3;
/** Less than this makes nothing surer that anybody would see. */
const LEAST_SMALLER = 0.05;
/** Rows of one table that a page prints. */
const MOST_LINES = 400;

/** The figures of a test in the order in which they are told: its use, then how far it went or would go. */
export function headlineFigures({
  best,
  distance,
  rangeTotal,
  rangeFullPower,
  rangeWithReserve,
}: TestResults): readonly SheetFigure[] {
  const far = (key: string, found: typeof rangeTotal, says: string): readonly SheetFigure[] =>
    found ? [{ key, value: found.value, dimension: "distance", says, pencil: found.pencil }] : [];
  const closed = rangeTotal !== null && !rangeTotal.pencil;
  return [
    {
      key: "use",
      value: best.value,
      dimension: "energyPerDistance",
      says: "19 of 20 such spans hold the truth",
      pencil: best.pencil,
    },
    ...(closed
      ? far("range", rangeTotal, "ridden, from full to the end")
      : [
          ...far("ridden", distance, "ridden"),
          ...far("range", rangeTotal, "range on the whole charge, reckoned"),
        ]),
    ...far("fullPower", rangeFullPower, "to the end of full power"),
    ...far("reserve", rangeWithReserve, "with a fifth kept back"),
  ];
}

function partsOf({ parts }: TestResults): SheetBlock | null {
  const told = parts.filter(({ whPerM }) => whPerM !== null);
  return told.length
    ? {
        kind: "table",
        caption: "By level and ground",
        headings: ["Level", "Ground", "Ridden", "Use"],
        rows: parts.map(({ level, ground, distanceM, whPerM }) => [
          level,
          ground,
          unitToken(distanceM, "distance", 1),
          whPerM ? estimateToken(whPerM, "energyPerDistance") : "not told apart",
        ]),
      }
    : null;
}

function remarkLines({ course }: TestResults, sorting: SheetOptions["sorting"]): SheetBlock | null {
  const topics = remarksByTopic(remarksOf(course), sorting);
  return topics.length
    ? {
        kind: "lines",
        lines: topics.map(({ topic, remarks }) => ({
          label: asSentence(topic).slice(0, -1),
          text: remarksText(remarks),
        })),
      }
    : null;
}

function wayLines({ surer, best }: TestResults): SheetBlock | null {
  const lines = surer
    .map(({ what, sdLeft }) => ({ what, smaller: 1 - sdLeft / best.value.sd }))
    .filter(({ smaller }) => smaller >= LEAST_SMALLER)
    .slice(0, MOST_WAYS)
    .map(({ what, smaller }) => ({
      label: asSentence(what).slice(0, -1),
      text: `the plus-or-minus would be ${percentText(smaller)} smaller`,
    }));
  return lines.length ? { kind: "lines", lines } : null;
}

/** What is said of rows that a page leaves out; null where it has them all. */
const moreOf = (count: number): SheetBlock | null =>
  count > MOST_LINES
    ? paragraph([`${count - MOST_LINES} more are left out here: they stand in the file of the table.`])
    : null;

function readingsOf({ readings, curve, flags }: TestResults): readonly (SheetBlock | null)[] {
  const asked = new Set(flags.map(({ rootId, field }) => `${rootId}/${field}`));
  const shown = readings.filter(({ kind }) => kind !== "telemetry");
  return shown.length
    ? [
        {
          kind: "table",
          caption: "The readings",
          headings: ["At", "Reading", "Left, by the answer", "State"],
          rows: [...shown]
            .sort((a, b) => a.distanceM - b.distanceM)
            .slice(0, MOST_LINES)
            .map(({ distanceM, text, struck, mark, rootId, field }) => [
              unitToken(distanceM, "distance", 1),
              text,
              curve[mark] ? percentText(curve[mark].left.mean) : "",
              struck ? "set aside" : asked.has(`${rootId}/${field}`) ? "in question" : "counts",
            ]),
        },
        moreOf(shown.length),
      ]
    : [];
}

/** The log as it was noted, for a page that has no figure. */
function logOf({ rides, test, bike }: TestRecord, system: System): readonly (SheetBlock | null)[] {
  const setting = { levels: bike.levels, throttle: true };
  const rows = rides.flatMap(({ name, entries }, ride) =>
    foldLog(entries).map(({ body, struck }) => [
      rides.length > 1 ? name || `ride ${ride + 1}` : "",
      writeLine(body, setting, system, 1) ?? body.kind,
      struck ? "set aside" : "",
    ]),
  );
  return rows.length
    ? [
        {
          kind: "table",
          caption: `The log of ${test.title}`,
          headings: ["Ride", "Noted", ""],
          rows: rows.slice(0, MOST_LINES),
        },
        moreOf(rows.length),
      ]
    : [];
}

/** Conditions in one sentence, as they were noted. */
export function conditionsLine({ test, bike, setUp, pack, rider }: TestRecord): string {
  return [
    bike.name,
    setUp?.name,
    pack.name,
    test.drive === "throttle" ? "throttle" : "pedalled",
    test.course,
    test.airTempC === undefined ? "" : unitToken(test.airTempC, "temperature"),
    test.wind && `wind ${test.wind}`,
    rider
      ? `${rider.name}${rider.massKg === undefined ? "" : `, ${unitToken(rider.massKg, "mass", 0)}`}`
      : "",
  ]
    .filter(Boolean)
    .join(" · ");
}

/** The sections of a test that has a figure. */
function sectionsOf(
  { record, results, claims, photographs }: TestSheetInput & { readonly results: TestResults },
  options: SheetOptions,
) {
  const facts = { record, results };
  return [
    ...sectionOf("headline", null, { kind: "figures", figures: headlineFigures(results) }),
    ...sectionOf("method", "How it was measured", paragraph(methodOf(facts))),
    ...sectionOf("strip", null, {
      kind: "drawing",
      name: "strip",
      shows: "Energy left along the way with its span, every reading in its shape, and use by stretch.",
    }),
    ...sectionOf("parts", "By level and ground", partsOf(results)),
    ...sectionOf("claim", "What is claimed", claimsBlock([{ label: "Claim", reports: claims }])),
    ...sectionOf("remarks", "Remarks", remarkLines(results, options.sorting)),
    ...sectionOf("words", null, options.words.trim() ? { kind: "words", markdown: options.words } : null),
    ...sectionOf("photographs", null, photographsBlock(photographs)),
    ...sectionOf("caveats", "What to know of it", { kind: "list", items: caveatsOf(facts) }),
    ...sectionOf("change", "What would make it surer", wayLines(results)),
    ...sectionOf("readings", "The readings", ...readingsOf(results)),
  ];
}

/**
 * The page of a test: its figure with its doubt, the way it was measured, claims, remarks, and what a reader must know, all
 * written from the log. Without a figure it says so and prints the log.
 */
export function testSheet(input: TestSheetInput, options: SheetOptions): SheetDocument {
  const { record, results, problems } = input;
  const sections: readonly SheetSection[] = results
    ? sectionsOf({ ...input, results }, options)
    : [
        ...sectionOf(
          "headline",
          "There is no figure yet",
          paragraph(problems.map(({ sentence }) => asSentence(sentence))),
        ),
        ...sectionOf("words", null, options.words.trim() ? { kind: "words", markdown: options.words } : null),
        ...sectionOf("readings", "The log", ...logOf(record, input.system)),
      ];
  const address = options.address
    ? sectionOf("address", null, { kind: "address", address: options.address })
    : [];
  return {
    kind: "test",
    title: options.title,
    line: conditionsLine(record),
    // Without a figure the log is all there is: it stands whatever is switched off.
    sections: [...sections, ...address].filter(
      ({ key }) => isOn(options, key) || (!results && key === "readings"),
    ),
  };
}
