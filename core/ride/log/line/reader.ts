import { lastOf, nth } from "#core/base";
import type { EntryEvent } from "#core/fields";

/** A part of the line that was understood: where it stands, and what it was taken for. */
export interface Chip {
  readonly from: number;
  readonly to: number;
  /** As typed. */
  readonly text: string;
  /** What it says, such as "percent" or "level". */
  readonly says: string;
  /** Field of the entry that holds it; null for a note, a time, and what kind of entry it is. */
  readonly field: string | null;
}

/** A part that was not understood: where it stands, and why. It becomes part of the note. */
export interface Unread {
  readonly from: number;
  readonly to: number;
  readonly text: string;
  readonly why: string;
}

/** What the line is read with: the bike's levels, least first. */
export interface LineSetting {
  readonly levels: readonly string[];
  readonly throttle: boolean;
}

/** Words of a note by themselves. */
export const PROSE = "kept as a note";
const TAKEN = "there is a figure for this already";

/** A word that says what the entry is, for as long as no other words stand beside it. */
interface Claim {
  readonly chip: Chip;
  readonly phrase: Pick<EntryEvent, "alone" | "fields">;
}

export const matchAt = (pattern: RegExp, text: string, at: number) => {
  pattern.lastIndex = at;
  return pattern.exec(text);
};

/**
 * A word or figure ends here.
 *
 * @example endsAt("62 %", 2) === true
 */
export const endsAt = (text: string, at: number) => /^(?=$|[\s,;.!"“”])/u.test(text.slice(at, at + 1) || "");

/** A place in the line that moves along it, with what was read so far. */
export class Reader {
  readonly fields = new Map<string, unknown>();
  readonly chips: Chip[] = [];
  readonly unread: Unread[] = [];
  readonly notes: string[] = [];
  private readonly claims: Claim[] = [];
  kind: string | null = null;
  clock: string | null = null;
  at = 0;

  constructor(
    readonly line: string,
    readonly setting: LineSetting,
  ) {}

  understood(to: number, says: string, from = this.at, field: string | null = null): void {
    this.chips.push({ from, to, text: this.line.slice(from, to), says, field });
    this.at = to;
  }

  left(to: number, why: string, from = this.at): void {
    this.unread.push({ from, to, text: this.line.slice(from, to), why });
    this.at = to;
  }

  set(field: string, value: unknown, to: number, says: string, from = this.at): void {
    if (this.fields.has(field)) return this.left(to, TAKEN, from);
    this.fields.set(field, value);
    this.understood(to, says, from, field);
  }

  /** Takes a word for what the entry is; see `settle`. */
  claim(phrase: Pick<EntryEvent, "alone" | "fields" | "kind" | "says">, to: number): void {
    if (this.kind !== null) return this.left(to, "one line is one entry");
    this.kind = phrase.kind;
    for (const [field, value] of Object.entries(phrase.fields ?? {})) this.fields.set(field, value);
    this.understood(to, phrase.says);
    this.claims.push({ chip: lastOf(this.chips), phrase });
  }

  /** Takes a level's name that is an everyday word too. */
  claimLevel(level: string, to: number): void {
    const known = this.fields.has("level");
    this.set("level", level, to, "level");
    if (!known)
      this.claims.push({ chip: lastOf(this.chips), phrase: { alone: "both sides", fields: { level } } });
  }

  /** Words in a row that say nothing are one piece of the note. */
  prose(to: number): void {
    const last = this.unread.at(-1);
    if (last && last.why === PROSE && /^\s+$/.test(this.line.slice(last.to, this.at))) {
      this.unread.pop();
      return this.left(to, PROSE, last.from);
    }
    this.left(to, PROSE);
  }

  /** Gives back to the note what was taken for an entry's kind or level and stands among other words. */
  settle(): void {
    for (const { chip, phrase } of this.claims) {
      const touches = (a: number, b: number) => /^\s+$/.test(this.line.slice(a, b));
      const before = this.unread.findIndex(({ to, why }) => why === PROSE && touches(to, chip.from));
      const after = this.unread.findIndex(({ from, why }) => why === PROSE && touches(chip.to, from));
      if (before < 0 && (after < 0 || phrase.alone === "before")) continue;
      this.chips.splice(this.chips.indexOf(chip), 1);
      for (const field of Object.keys(phrase.fields ?? {})) this.fields.delete(field);
      if (chip.field === null) this.kind = null;
      const from = before < 0 ? chip.from : nth(this.unread, before).from;
      const to = after < 0 ? chip.to : nth(this.unread, after).to;
      const beside = new Set([before, after]);
      const rest = this.unread.filter((_, i) => !beside.has(i));
      const piece = { from, to, text: this.line.slice(from, to), why: PROSE };
      this.unread.splice(0, this.unread.length, ...[...rest, piece].sort((a, b) => a.from - b.from));
    }
  }
}
