import subsrt from "subsrt-ts";
import { err, nth, ok, type Result } from "#core/base";

/** A piece of speech and where in the film it begins, s; null where the text has no stamps. */
export interface Spoken {
  readonly atS: number | null;
  readonly text: string;
}

export const SPOKEN_FORMATS = ["srt", "vtt", "stamped", "plain"] as const;
export type SpokenFormat = (typeof SPOKEN_FORMATS)[number];

/** Longest text that is read, characters: about ten hours of speech. */
const LONGEST = 1_000_000;

/** A stamp at the head of a line: [m:ss], (h:mm:ss), 0:41, 1:02:07.5 or 02:10 -. */
const STAMP = /^\s*[[(]?(?:(\d{1,3}):)?(\d{1,3}):([0-5]\d)(?:[.,]\d{1,3})?[\])]?\s*[-–:]?(?=\s|$)/;

const secondsOf = (hours: string | undefined, minutes: string, seconds: string) =>
  Number(hours ?? 0) * 3600 + Number(minutes) * 60 + Number(seconds);

/** Tags of captions, and what is not spoken: [music], speaker's dashes. */
const UNSPOKEN = /<[^>]{0,80}>|\{\\[^}]{0,40}\}|\[(?:music|applause|laughter|__)\]|♪/gi;
const spokenText = (text: string) => text.replace(UNSPOKEN, " ").replace(/\s+/g, " ").trim();

function readStamped(text: string): readonly Spoken[] {
  const pieces: { atS: number | null; text: string }[] = [];
  for (const line of text.split("\n")) {
    const found = STAMP.exec(line);
    if (found) {
      const [whole, hours, minutes, seconds] = found;
      pieces.push({ atS: secondsOf(hours, minutes ?? "0", seconds ?? "0"), text: line.slice(whole.length) });
      continue;
    }
    const last = pieces.at(-1);
    if (last) last.text += ` ${line}`;
    else if (line.trim()) pieces.push({ atS: null, text: line });
  }
  return pieces;
}

function readCaptionFile(text: string, format: "srt" | "vtt"): readonly Spoken[] {
  return subsrt
    .parse(text, { format })
    .flatMap((each) =>
      each.type === "caption" && Number.isFinite(each.start)
        ? [{ atS: each.start / 1000, text: each.content }]
        : [],
    );
}

/** Automatic captions say each line again as it scrolls up: a caption that begins as the one before ended loses what it repeats. */
function unrolled(pieces: readonly Spoken[]): readonly Spoken[] {
  return pieces.map(({ atS, text }, i) => {
    const before = i > 0 ? nth(pieces, i - 1).text : "";
    if (before && text === before) return { atS, text: "" };
    return {
      atS,
      text: before.length > 8 && text.startsWith(`${before} `) ? text.slice(before.length + 1) : text,
    };
  });
}

/** Which of the formats a text is in. */
export function spokenFormatOf(text: string): SpokenFormat {
  if (/^\uFEFF?\s*WEBVTT/.test(text)) return "vtt";
  if (/\d\d:\d\d:\d\d[,.]\d{3}\s*-->/.test(text.slice(0, 4000))) return "srt";
  return text.split("\n").some((line) => STAMP.test(line)) ? "stamped" : "plain";
}

/**
 * Reads what was said from captions (SubRip, WebVTT), from text with a stamp at the head of lines, or from plain text.
 *
 * @param format as it says it is; left out, it is found out
 * @returns pieces in the order they were said, or what to type
 */
export function readSpoken(
  text: string,
  format: SpokenFormat = spokenFormatOf(text),
): Result<readonly Spoken[]> {
  if (text.length > LONGEST)
    return err("too-long", "text", "That is over ten hours of speech: import it in parts.");
  const clean = text.replace(/^\uFEFF/, "").replace(/\r\n?/g, "\n");
  let pieces: readonly Spoken[];
  try {
    pieces =
      format === "plain"
        ? clean.split(/\n{1,}/).map((line) => ({ atS: null, text: line }))
        : format === "stamped"
          ? readStamped(clean)
          : readCaptionFile(clean, format);
  } catch {
    return err(
      "unreadable",
      "text",
      `This is no ${format} file: paste the text with stamps, such as [0:41], or without.`,
    );
  }
  const spoken = pieces.map(({ atS, text: said }) => ({ atS, text: spokenText(said) }));
  const kept = (format === "srt" || format === "vtt" ? unrolled(spoken) : spoken).filter(
    ({ text: said }) => said,
  );
  return kept.length
    ? ok(kept)
    : err(
        "nothing-said",
        "text",
        "There is no speech in it: paste what was said, or choose the captions' file.",
      );
}
