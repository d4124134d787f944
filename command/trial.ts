import { readFileSync } from "node:fs";
import { DESK_KINDS, deskKind, DESKS_HEAD, deskShortfalls, deskText, type DeskLine } from "../bench/desks.ts";
import { identities } from "../bench/identities.ts";
import { KIND_NAMES, kindLine, KINDS_HEAD, kindText, shortfalls, type KindLine } from "../bench/kinds.ts";
import { differsFromPage } from "../bench/methodPage.ts";
import { LEAST, narrations, score, scoreText } from "../bench/narrations.ts";
import { RANK_KINDS, rankLine, RANKS_HEAD, rankText } from "../bench/ranks.ts";
import { sensitivity, SENSITIVITY_HEAD, sensitivityText } from "../bench/sensitivity.ts";
import { coverageTrial } from "../bench/trial.ts";

/** Tests of each kind, rides and desks of the whole trial, and of the short one that is part of every test run. */
const WHOLE = { kind: 40, rides: 400, desks: 20, identities: 200 };
const SHORT = { kind: 12, rides: 60, desks: 3, identities: 7 };
const RANKED = 1000;
/** What of it may be asked for alone. */
const PARTS = ["narrations", "ranks", "sensitivity", "identities"];

/** What the grammar of narrations finds: of those it was made with, and of those written after it. */
function narrationsTrial(): boolean {
  const own = score(narrations());
  print("Narrations, twelve invented ones the grammar was made with:");
  scoreText(own).forEach(print);
  print("Narrations written after it:");
  scoreText(score(narrations("held-out")))
    .slice(-1)
    .forEach(print);
  print("");
  const { right, found, asked } = own.all;
  return right / found >= LEAST.precision && right / asked >= LEAST.recall;
}

const print = (line: string) => process.stdout.write(`${line}\n`);

/** One line for each kind of test, in the world. */
function kindsTrial(count: number): readonly KindLine[] {
  print(KINDS_HEAD);
  const lines = KIND_NAMES.map((kind) => {
    const line = kindLine(kind, count);
    print(kindText(line));
    return line;
  });
  print(
    "Spans of Wh/mi and of usable energy that hold the truth; median error of best and plain, half width; true slips and honest readings questioned. In percent; seeds from 1.\n",
  );
  return lines;
}

/** One line for each kind of desk brought to House, in the world. */
function desksTrial(count: number): readonly DeskLine[] {
  print(DESKS_HEAD);
  const lines = Object.keys(DESK_KINDS).map((name) => {
    const line = deskKind(name, count);
    print(deskText(line));
    return line;
  });
  print(
    "Six bikes and two riders a desk, by what was told of each test. Spans under House that hold the truth, their half width, median error, that of plain as ridden; pairs in the right order, by plain; pairs called sure at 90 %, and how many of them are right. In percent; seeds from 1.\n",
  );
  return lines;
}

/** Rides drawn from the model's own priors: whether their truths lie evenly in their answers. */
function ranksTrial(): number {
  print(RANKS_HEAD);
  for (const kind of RANK_KINDS) print(rankText(rankLine(kind, RANKED)));
  return 0;
}

/** What a default, a tenth larger, makes of the Wh/mi of one log a kind, in percent. */
function sensitivityTrial(): number {
  print(SENSITIVITY_HEAD);
  for (const line of sensitivity()) print(sensitivityText(line));
  return 0;
}

/** Desks whose figures are held against one another: one quantity has one answer. */
function identitiesTrial(desks: number): boolean {
  const { tests, pairs, broken } = identities(desks);
  print(
    `One quantity, one answer: ${desks} desks, ${tests} tests, ${pairs} pairs; ${broken.length} that disagree.`,
  );
  broken.forEach(print);
  print("");
  return broken.length === 0;
}

/**
 * Runs the trials: each kind of test in the world, desks brought to one reference, rides on the easy one. Prints their
 * figures, and after a whole trial where docs/method.md has others; exit code 1 when one lies outside its span or is not as
 * the page has it.
 */
export function trial(args: readonly string[] = []): number {
  const unknown = args.find((arg) => !arg.startsWith("--") && !PARTS.includes(arg));
  if (unknown !== undefined) {
    print(
      `There is no trial “${unknown}”: it is ${PARTS.slice(0, -1).join(", ")} or ${PARTS.at(-1)}, or nothing for all.`,
    );
    return 2;
  }
  if (args.includes("ranks")) return ranksTrial();
  if (args.includes("sensitivity")) return sensitivityTrial();
  if (args.includes("identities")) return identitiesTrial(WHOLE.identities) ? 0 : 1;
  const isShort = args.includes("--short");
  const { kind, rides, desks: deskCount } = isShort ? SHORT : WHOLE;
  const read = narrationsTrial();
  if (args.includes("narrations")) return read ? 0 : 1;
  const isOne = identitiesTrial(isShort ? SHORT.identities : WHOLE.identities);
  const kinds = kindsTrial(kind);
  const desks = desksTrial(deskCount);
  const figures = coverageTrial(rides);
  for (const { what, value, low, high, of } of figures) {
    const fine = value >= low && value <= high;
    const span = `${(low * 100).toFixed(0)} to ${(high * 100).toFixed(0)} %`;
    print(
      `${what.padEnd(52)} ${(value * 100).toFixed(1).padStart(6)} %  of ${String(of).padStart(5)}  ${fine ? "within" : "OUTSIDE"} ${span}`,
    );
  }
  const held =
    read &&
    isOne &&
    kinds.every((line) => shortfalls(line).length === 0) &&
    desks.every((line) => deskShortfalls(line).length === 0) &&
    figures.every(({ value, low, high }) => value >= low && value <= high);
  if (isShort) return held ? 0 : 1;
  const page = readFileSync(new URL("../docs/method.md", import.meta.url), "utf8");
  const differs = differsFromPage(page, { kinds, desks, figures });
  print(differs.length ? `\n${differs.join("\n")}` : "\nEvery figure is as docs/method.md has it.");
  return held && differs.length === 0 ? 0 : 1;
}
