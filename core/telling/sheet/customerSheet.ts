import { packSheet, temperatureFactor } from "#core/battery";
import { dayText, fixed, halfWidth95, unitToken } from "#core/base";
import type { Bench, PackRecord } from "#core/records";
import {
  paragraph,
  photographsBlock,
  sectionOf,
  type SheetBlock,
  type SheetDocument,
  type SheetLine,
  type SheetPhotograph,
} from "./document.ts";
import { asSentence, percentText } from "./facts.ts";
import { isOn, type SheetOptions } from "./options.ts";

/** What a customer's page is made from. */
export interface CustomerSheetInput {
  readonly bikeName: string;
  readonly pack: PackRecord;
  readonly bench: Bench;
  /** The usual cautions about packs. */
  readonly cautions: readonly string[];
  readonly photographs: readonly SheetPhotograph[];
}

const VERDICTS = {
  inside: "Sound for its age.",
  below: "Weaker than its age lets expect. Have it looked at before long rides are planned on it.",
  above: "Stronger than its age lets expect.",
} as const;

/** Temperature that results are brought to, C. */
const BROUGHT_TO_C = 25;

const line = (label: string, text: string | null | undefined): readonly SheetLine[] =>
  text ? [{ label, text }] : [];
const linesOf = (...lines: readonly (readonly SheetLine[])[]): SheetBlock | null =>
  lines.flat().length ? { kind: "lines", lines: lines.flat() } : null;
const volts = (value: number | undefined) => (value === undefined ? null : unitToken(value, "volts"));

/**
 * Hours and minutes as a bench's clock has them: `hoursText(2.783) === "2:47"`.
 *
 * @example hoursText(1.5) === "1:30"
 */
export function hoursText(hours: number): string {
  const minutes = Math.round(hours * 60);
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;
}

/** The tester's own reading, before anything is done with it. */
function shown({ shownWh, shownPercent, wh }: Bench): SheetBlock | null {
  return linesOf(
    line("The tester showed", unitToken(shownWh ?? wh, "energy", 0)),
    line("Of the label", shownPercent === undefined ? null : `${fixed(shownPercent, 0)} %`),
  );
}

/** What the pack holds at one temperature, and what its age lets expect. */
function health({ pack, bench }: CustomerSheetInput): readonly (SheetBlock | null)[] {
  const sheet = packSheet(pack, bench);
  if (!sheet) {
    const mean = bench.wh / temperatureFactor(pack.chemistry, bench.startTempC);
    return [
      linesOf(line(`Brought to ${unitToken(BROUGHT_TO_C, "temperature")}`, unitToken(mean, "energy", 0))),
      paragraph(["The label gives no energy, so that no share of it can be told."]),
    ];
  }
  const { expected, labelWh, measured } = sheet;
  return [
    {
      kind: "figures",
      figures: [
        {
          key: "holds",
          value: measured,
          dimension: "energy",
          says: `held, brought to ${unitToken(BROUGHT_TO_C, "temperature")}`,
          pencil: false,
        },
      ],
    },
    linesOf(
      line("Label", unitToken(labelWh, "energy", 0)),
      line(
        "Of the label",
        `${percentText(sheet.health.share.mean)} ± ${percentText(halfWidth95(sheet.health.share))}`,
      ),
      line(
        "Expected for its age",
        expected
          ? `${percentText(expected.low)} to ${percentText(expected.high)} of the label, at ${fixed(expected.years, 1)} years${expected.cycles === null ? "" : ` and ${expected.cycles} full cycles`}`
          : "not told: its first day is not noted",
      ),
    ),
  ];
}

/** How the discharge went. */
function course({ bench }: CustomerSheetInput): SheetBlock | null {
  const { startVolts, endVolts, startCharge, endCharge, hours, startTempC, highestTempC } = bench;
  const charge = (value: number | undefined) => (value === undefined ? "" : `, ${fixed(value, 0)} %`);
  return linesOf(
    line(
      "Started",
      `full, charger green${startVolts === undefined ? "" : `, ${volts(startVolts)!} at rest`}${charge(startCharge)}`,
    ),
    line(
      "Ended",
      endVolts === undefined && endCharge === undefined
        ? null
        : `${volts(endVolts) ?? ""}${charge(endCharge)}`.replace(/^, /, ""),
    ),
    line("Took", `${hoursText(hours)} h`),
    line(
      "Temperature of the pack",
      `${unitToken(startTempC, "temperature")} at the start${highestTempC === undefined ? "" : `, ${unitToken(highestTempC, "temperature")} at most`}`,
    ),
  );
}

/** The page a customer takes home with a pack: the tester's own reading first, then what it means. */
export function customerSheet(input: CustomerSheetInput, options: SheetOptions): SheetDocument {
  const { bench, pack, bikeName, cautions } = input;
  const verdict = packSheet(pack, bench)?.health.verdict ?? null;
  const errors = bench.errors
    .split("\n")
    .map((each) => each.trim())
    .filter(Boolean);
  const sections = [
    ...sectionOf("shown", null, shown(bench)),
    ...sectionOf("health", "What it means", ...health(input)),
    ...sectionOf("verdict", "Verdict", verdict ? paragraph([VERDICTS[verdict]]) : null),
    ...sectionOf(
      "pack",
      "The pack",
      linesOf(
        line("Customer", bench.customer),
        line("Pack", `${pack.name}, ${bikeName}`),
        line("Serial number", bench.serial),
        line("Software", bench.software),
        line("Made on", bench.madeOn),
        line("First used on", pack.firstUsedOn && dayText(pack.firstUsedOn)),
        line(
          "Cycles",
          bench.cyclesShown === undefined
            ? pack.cycles === undefined
              ? null
              : `${pack.cycles}`
            : fixed(bench.cyclesShown, Number.isInteger(bench.cyclesShown) ? 0 : 1),
        ),
      ),
    ),
    ...sectionOf(
      "course",
      "How it went",
      course(input),
      paragraph(bench.note ? [asSentence(bench.note)] : []),
    ),
    ...sectionOf(
      "errors",
      "Error list",
      errors.length ? { kind: "list", items: errors } : paragraph(["None was read."]),
    ),
    ...sectionOf("words", null, options.words.trim() ? { kind: "words", markdown: options.words } : null),
    ...sectionOf("photographs", null, photographsBlock(input.photographs)),
    ...sectionOf("cautions", "Cautions", { kind: "list", items: cautions }),
    ...sectionOf("address", null, options.address ? { kind: "address", address: options.address } : null),
  ];
  return {
    kind: "customer",
    title: options.title,
    line: [
      `Bench test of ${dayText(bench.on)}`,
      bench.instrument && `on ${bench.instrument}`,
      bench.by && `by ${bench.by}`,
    ]
      .filter(Boolean)
      .join(", "),
    sections: sections.filter(({ key }) => isOn(options, key)),
  };
}
