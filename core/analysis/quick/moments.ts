import { GROUND_WORDS } from "#core/fields";
import { readLine, type EntryBody, type LineSetting } from "#core/ride/log";

/** Figures of one moment of a ride, as they were noted together. */
export interface Moment {
  readonly isStart: boolean;
  readonly body: EntryBody;
}

export interface ReadMoments {
  readonly moments: readonly Moment[];
  /** What each part was understood as. */
  readonly says: readonly string[];
  readonly unread: readonly string[];
}

type Figures = Readonly<Record<string, unknown>>;

/** Figures of which a moment holds one each. */
const ONCE = ["distanceM", "percent", "bars", "packVolts", "counterWh"] as const;
const BEGINS = /\b(?:start(?:ed|ing)?|began|beginning|at the start|before)\b/i;
const USED = /\bused\s+(\d+(?:[.,]\d+)?)\s*(?:%|percent)|(\d+(?:[.,]\d+)?)\s*(?:%|percent)\s+(?:used|gone)/i;
const FROM_TO = /\b(?:from\s+)?(\d+)\s*(?:%|percent)?\s*(?:to|down to|-|–)\s*(\d+)\s*(?:%|percent)/i;
/** Both ends of a stretch by bars and by volts: a figure that falls; one that rises is a span, as it flickered. */
const BARS_FROM_TO = /\b(?:from\s+)?(\d+)\s*(?:bars?)?\s*(?:(?:down\s+)?to|-|–|->|→)\s*(\d+)\s*bars?\b/gi;
const VOLTS_FROM_TO =
  /\b(?:from\s+)?(\d+(?:[.,]\d+)?)\s*(?:v|volts?)?\s*(?:(?:down\s+)?to|-|–|->|→)\s*(\d+(?:[.,]\d+)?)\s*(?:v|volts?)(?![a-z])/gi;
const falls = (first: string, last: string) =>
  Number(first.replace(",", ".")) > Number(last.replace(",", "."));
const BARE_VOLTS = /^(\d+(?:[.,]\d+)?)\s*(?:v|volts?)$/i;
const WORDS_OF_PLACE =
  /\b(?:pedal(?:l?ed|l?ing)?|assist(?!\s*\d)|all|ride|an?|is|i|my|had|battery|pack|bike|display|says?|said|shows?|showed|showing|reads?|after|over|for|did|rode|went|at the start|at start|start(?:ed|ing)?(?: at| with)?|began(?: at| with)?|from|before|down to|left at|now|then|and|it|the|with|on)\b/gi;

const CLIMB = /\bclimb(?:ed|ing)?\s*(\d+)\s*(m|ft)\b|\b(\d+)\s*(m|ft)\s*(?:of\s+)?climb(?:ed|ing)?\b/gi;
const BARS_OF = /\b(\d+)\s*bars?\s*(?:left\s*)?(?:of|\/)\s*(\d+)\b/gi;
const FULL = /\b(?:charged (?:up )?to )?full(?:y)?(?: charged?)?\b(?:\s*battery)?/gi;
/** Before each further distance, after a full charge, and where the pack ended. */
const BORDER =
  /(?<=\S.*)(?=(?<![\d.,])\d+(?:[.,]\d+)?\s*(?:mi|miles?|km)\b(?!\s*\/))|(?<=\bfull\b)(?=\s)|(?<=\S.*)(?=\b(?:died|dead|cut off|ran out|empty)\b)/i;
const GROUND = new RegExp(
  `(?<![#\\w])(?:${[...GROUND_WORDS.keys()].sort((a, b) => b.length - a.length).join("|")})\\b`,
  "gi",
);

/** Notes in their parts: at commas, lines and full stops, and before each further distance. */
const partsOf = (notes: string): readonly string[] =>
  notes
    .replace(FULL, "full")
    .replace(/:/g, ",")
    .replace(BARS_OF, "$1 of $2 bars")
    .replace(
      CLIMB,
      (_all, before, unitBefore, after, unitAfter) => `, ${before ?? after}${unitBefore ?? unitAfter} up,`,
    )
    .replace(FROM_TO, "start $1 %, $2 %")
    .replace(BARS_FROM_TO, (all, first: string, last: string) =>
      falls(first, last) ? `start ${first} bars, ${last} bars` : all,
    )
    .replace(VOLTS_FROM_TO, (all, first: string, last: string) =>
      falls(first, last) ? `start ${first} V, ${last} V` : all,
    )
    .split(/[;\n]|(?<!\d),|,(?!\d)|\.(?=\s|$)|\bthen\b/i)
    .flatMap((part) => part.split(BORDER))
    .map((part) => part.trim())
    .filter(Boolean);

/** A part as figures: what the line reads of it, without the words that only join. */
function figuresIn(part: string, setting: LineSetting) {
  const used = USED.exec(part);
  const left = used && `${100 - Number((used[1] ?? used[2] ?? "").replace(",", "."))} %`;
  const plain = (left ?? part)
    .replace(WORDS_OF_PLACE, " ")
    .replace(/\bat\s*$/i, "")
    .replace(
      GROUND,
      (ground) => `#${(GROUND_WORDS.get(ground.toLowerCase()) ?? ground).replaceAll(" ", "-")}`,
    )
    .trim();
  const volts = BARE_VOLTS.exec(plain);
  const read = readLine(volts ? `${volts[1]}V rest` : plain, setting);
  return {
    body: read.body,
    says: read.chips.map(({ text, says }) => `${says}: ${text}`),
    unread: read.unread,
  };
}

const without = (figures: Figures, keys: readonly string[]): Figures =>
  Object.fromEntries(Object.entries(figures).filter(([key]) => !keys.includes(key)));

/** The parts of a body that says a full charge and a later moment in one breath. */
function apart(body: EntryBody): readonly EntryBody[] {
  if (body.kind !== "start" || body.chargerDone !== true) return [body];
  const { kind: _kind, chargerDone: _done, ...rest } = body;
  const full: EntryBody = { kind: "start", chargerDone: true };
  return Object.keys(rest).length ? [full, { kind: "checkIn", ...rest }] : [full];
}

/** Where more charges are told than distances and a charge came first, that is the start's. */
function withStart(moments: Moment[]): readonly Moment[] {
  const [first] = moments;
  if (!first || moments.some(({ isStart }) => isStart)) return moments;
  const charge = ["percent", "bars", "packVolts", "counterWh"].filter((key) => key in first.body);
  const next = moments[1];
  if (!("distanceM" in first.body) || charge.length === 0 || !next || "distanceM" in next.body)
    return moments;
  if (!charge.some((key) => key in next.body)) return moments;
  const begin = Object.fromEntries(Object.entries(first.body).filter(([key]) => charge.includes(key)));
  const rest = without(first.body, [...charge, "kind"]);
  return [
    { isStart: true, body: { ...begin, kind: "start" } as EntryBody },
    { isStart: false, body: { ...rest, ...next.body } as EntryBody },
    ...moments.slice(2),
  ];
}

/** In the order they were ridden, where each says how far. */
function inOrder(moments: readonly Moment[]): readonly Moment[] {
  const at = ({ body }: Moment) => ("distanceM" in body ? (body.distanceM ?? NaN) : NaN);
  const [starts, later] = [
    moments.filter(({ isStart }) => isStart),
    moments.filter(({ isStart }) => !isStart),
  ];
  if (later.some((moment) => Number.isNaN(at(moment)))) return moments;
  return [...starts, ...[...later].sort((a, b) => at(a) - at(b))];
}

/**
 * Notes of a ride as its moments: figures that come together are of one, a figure that is there already begins the next.
 *
 * @example readMoments("full, 27 mi, 31 % left", { levels: ["1"], throttle: true }).moments.length === 2
 */
export function readMoments(notes: string, setting: LineSetting): ReadMoments {
  const moments: Moment[] = [];
  const says: string[] = [];
  const unread: string[] = [];
  for (const part of partsOf(notes)) {
    const read = figuresIn(part, setting);
    says.push(...read.says);
    unread.push(...read.unread.map(({ text }) => text));
    for (const told of read.body ? apart(read.body) : []) {
      if (told.kind === "note") continue;
      const body = without(told, ["note"]) as EntryBody;
      const begins = body.kind === "start" || (moments.length === 0 && BEGINS.test(part));
      const last = moments.at(-1);
      const joins =
        last !== undefined &&
        !begins &&
        !(body.kind === "end" && /\b(?:at|after)\s*$/i.test(part)) &&
        (!last.isStart || (body.kind !== "end" && !ONCE.some((key) => key in body))) &&
        last.body.kind !== "totals" &&
        body.kind !== "totals" &&
        !ONCE.some((key) => key in body && key in last.body);
      if (!joins) {
        const kind = begins ? "start" : body.kind;
        moments.push({ isStart: begins, body: { ...body, kind } as EntryBody });
        continue;
      }
      const kind = body.kind === "end" ? "end" : last.body.kind;
      moments[moments.length - 1] = { ...last, body: { ...last.body, ...body, kind } as EntryBody };
    }
  }
  return { moments: inOrder(withStart(moments)), says, unread };
}
