import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { readNarration, type Item } from "#core/narration";

/** What a careful reader found in a narration, written down before any grammar was run on it. */
interface Gold {
  readonly atS: number;
  readonly kind: string;
  /** A figure, both ends of a span, or a word; null where the kind says it all. */
  readonly value: number | readonly [number, number] | string | null;
}

const FOLDER = join(import.meta.dirname, "..", "tests", "narrations");
const EVENTS = new Set([
  "full_charge",
  "cut_off",
  "low_power",
  "battery_blinking",
  "stop",
  "turn_round",
  "pedalling_no_power",
  "throttle",
  "bar_lost",
]);
const IN_S: Readonly<Record<string, number>> = { h: 3600, min: 60, s: 1 };

function valueOf(kind: string, words: readonly string[]): Gold["value"] {
  const [text = "", unit = ""] = words;
  if (EVENTS.has(kind)) return null;
  const parts = /^(\d+):(\d\d)$/.exec(text);
  if (parts)
    return (
      Number(parts[1]) * (kind === "charge_time" ? 3600 : 60) +
      Number(parts[2]) * (kind === "charge_time" ? 60 : 1)
    );
  const span = /^(\d+(?:\.\d+)?)-(\d+(?:\.\d+)?)$/.exec(text);
  if (span) return [Number(span[1]), Number(span[2])];
  const figure = Number(text);
  return Number.isFinite(figure) ? figure * (/_time$/.test(kind) ? (IN_S[unit] ?? 1) : 1) : text;
}

/** A narration of a file, with what is to be found in it. */
function goldOf(source: string): { readonly text: string; readonly gold: readonly Gold[] } {
  const gold: Gold[] = [];
  const spoken: string[] = [];
  let atS = 0;
  for (const line of source.split("\n")) {
    const stamp = /^\[(\d+):(\d\d)\]/.exec(line);
    if (stamp) atS = Number(stamp[1]) * 60 + Number(stamp[2]);
    if (!/^[=+] /.test(line)) spoken.push(line);
    else
      for (const each of line.slice(2).split(";")) {
        const [kind = "", ...words] = each.trim().split(/\s+/);
        if (kind) gold.push({ atS, kind, value: valueOf(kind, words) });
      }
  }
  return { text: spoken.join("\n"), gold };
}

/** Pieces may be cut elsewhere than a reader would: a find this near in the film is the same, s. */
const NEAR_S = 45;

const figures = (value: Item["value"] | Gold["value"]): readonly number[] =>
  typeof value === "number" ? [value] : Array.isArray(value) ? (value as number[]) : [];

function isSame(item: Item, { kind, value, atS }: Gold): boolean {
  if (item.kind !== kind || Math.abs((item.atS ?? 0) - atS) > NEAR_S) return false;
  if (value === null) return true;
  if (typeof value === "string") return String(item.value) === value;
  const [a, b] = [figures(item.value), figures(value)];
  return (
    a.length === b.length &&
    a.every((each, i) => Math.abs(each - (b[i] ?? NaN)) < 0.011 * Math.max(1, Math.abs(each)))
  );
}

export interface Tally {
  found: number;
  asked: number;
  right: number;
}

/** Precision and recall that the narrations the grammar was made with must reach. */
export const LEAST = { precision: 0.92, recall: 0.88 };
/** Kinds of which there are this many have a line of their own. */
const FEW = 5;

/** The figures of `score` as lines of text. */
export function scoreText({ byKind, all }: ReturnType<typeof score>): readonly string[] {
  const percent = (part: number, whole: number) =>
    (whole ? `${((100 * part) / whole).toFixed(0)} %` : "-").padStart(6);
  const line = (name: string, { right, found, asked }: Tally) =>
    `${name.padEnd(20)} ${percent(right, found)} ${percent(right, asked)}  of ${asked}`;
  const kinds = [...byKind].filter(([, { asked }]) => asked >= FEW).sort(([a], [b]) => a.localeCompare(b));
  return [
    "kind               precision recall",
    ...kinds.map(([kind, tally]) => line(kind, tally)),
    line("all", all),
  ];
}

/** What is said in some narrations, one after the other. */
export const spokenOf = (names: readonly string[]): string =>
  names.map((name) => goldOf(readFileSync(join(FOLDER, name), "utf8")).text).join("\n");

/** How many of what is to be found is found, and how many of what is found is right, by kind. */
export function score(names: readonly string[]) {
  const byKind = new Map<string, Tally>();
  const wrong: string[] = [];
  const at = (kind: string) => {
    const tally = byKind.get(kind) ?? { found: 0, asked: 0, right: 0 };
    byKind.set(kind, tally);
    return tally;
  };
  for (const name of names) {
    const { text, gold } = goldOf(readFileSync(join(FOLDER, name), "utf8"));
    const read = readNarration(text);
    if (!read.ok) throw new Error(`${name} cannot be read`);
    const open = [...gold];
    for (const each of gold) at(each.kind).asked += 1;
    for (const item of [...read.value.items, ...read.value.setUp]) {
      at(item.kind).found += 1;
      const i = open.findIndex((each) => isSame(item, each));
      if (i >= 0) {
        at(item.kind).right += 1;
        open.splice(i, 1);
      } else
        wrong.push(
          `${name} ${item.atS}: found ${item.kind} ${JSON.stringify(item.value)} “${item.words}” (${item.because})`,
        );
    }
    for (const { atS, kind, value } of open)
      wrong.push(`${name} ${atS}: missed ${kind} ${JSON.stringify(value)}`);
  }
  const all = [...byKind.values()].reduce(
    (sum, each) => ({
      found: sum.found + each.found,
      asked: sum.asked + each.asked,
      right: sum.right + each.right,
    }),
    { found: 0, asked: 0, right: 0 },
  );
  return { byKind, all, wrong };
}

/** Those the grammar was made with; and those that were written after it and never tuned to. */
export const narrations = (folder: "" | "held-out" = ""): readonly string[] =>
  readdirSync(join(FOLDER, folder))
    .filter((name) => name.endsWith(".txt"))
    .sort()
    .map((name) => join(folder, name));
