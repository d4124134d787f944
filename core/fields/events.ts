import { END_NAMES, type End } from "./vocabulary.ts";

/** What an entry is, by a word or two: its kind, and what else that says. */
export interface EntryEvent {
  /** The kind of entry; an end with its reason behind a colon, as a form's choice has it. */
  readonly name: string;
  readonly kind: string;
  readonly fields?: Readonly<Record<string, unknown>>;
  /** For a choice list; null where the words only say more of one that is there. */
  readonly label: string | null;
  /** How a person hears it back. */
  readonly says: string;
  /** The words, as the inside of a regular expression; null for what only a choice list names. */
  readonly words: string | null;
  /** The words that are written for it. */
  readonly written: string;
  /** Among other words it is no entry: "cut off by a van", "the end of the road". */
  readonly alone: "both sides" | "before";
}

const end = (reason: End, words: string, written: string, says: string): EntryEvent => ({
  name: `end:${reason}`,
  kind: "end",
  fields: { reason },
  label: `end: ${END_NAMES[reason]}`,
  says: `end: ${says}`,
  words,
  written,
  alone: "both sides",
});

const event = (
  kind: string,
  label: string | null,
  says: string,
  words: string | null,
  more: Partial<EntryEvent> = {},
): EntryEvent => ({ name: kind, kind, label, says, words, written: says, alone: "both sides", ...more });

/**
 * Everything that an entry can be, for the line, tables and choice lists alike, in the order of a ride; in it words stand
 * before shorter ones that they begin with.
 */
export const EVENTS: readonly EntryEvent[] = [
  event("checkIn", "check-in", "check-in", "check[\\s-]?in", { written: "" }),
  event("refill", null, "charged to full", "(?:charged|recharged|refilled)(?: to)? full|refill", {
    ...{ name: "refill:full", fields: { toFull: true }, written: "charged full" },
  }),
  event("refill", "charged", "charged", "charged|recharged|part charge|top[\\s-]?up"),
  event("fullPowerEnd", "full power ended", "full power ended", "full power (?:ended|ends|gone|over)"),
  event("start", null, "full charge", "(?:start,? )?full|charger done", {
    ...{ name: "start:full", fields: { chargerDone: true }, written: "full" },
  }),
  event("start", "start", "start", "start"),
  event("barLost", "bar lost", "bar lost", null),
  event("lastBar", "last bar blinking", "last bar blinks", "last bar(?: blink(?:s|ing))?|blink(?:s|ing)?", {
    written: "blink",
  }),
  end("lowPower", "low[\\s-]?power held", "low-power held", "low-power mode held"),
  event("lowPower", "low-power mode began", "low power", "(?:low[\\s-]?power|limp)(?: mode)?", {
    written: "lowpower",
  }),
  end("cutOff", "cut[\\s-]?(?:off|out)|died|dead|shut ?down", "cut off", "the pack cut off"),
  end(
    "cannotHoldSpeed",
    "(?:cannot|can't|can’t|could not|couldn't) hold (?:the )?speed|crawl(?:ing)?",
    "cannot hold speed",
    "cannot hold the speed",
  ),
  end("gaugeZero", "gauge (?:at )?zero", "gauge zero", "gauge at zero"),
  end("byChoice", "stopped by choice|end(?:ed)?(?: by choice)?|finish(?:ed)?", "end", "stopped by choice"),
  event("stop", "stop", "stop", "stop(?:ped)?", { alone: "before" }),
  event("go", "riding on", "go", "go|riding on", { alone: "before" }),
  event("note", "note only", "note", null),
];

/** The event of some words by themselves, as in a table's cell; null for words that name none. */
export function eventOf(text: string): EntryEvent | null {
  return (
    EVENTS.find(({ words }) => words !== null && new RegExp(`^(?:${words})$`, "i").test(text.trim())) ?? null
  );
}
