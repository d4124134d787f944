import subsrt from "subsrt-ts";
import type { Chapter, Cue } from "#core/telling";

const MS = 1000;

/**
 * Captions as a file: WebVTT or SubRip.
 *
 * @example writeCaptions([], "vtt") === "WEBVTT\r\n\r\n"
 */
export function writeCaptions(cues: readonly Cue[], format: "vtt" | "srt"): string {
  const captions = cues.map(({ fromS, toS, text }, i) => ({
    type: "caption" as const,
    index: i + 1,
    start: Math.round(fromS * MS),
    end: Math.round(toS * MS),
    duration: Math.round((toS - fromS) * MS),
    content: text,
    text,
  }));
  return subsrt.build(captions, { format });
}

const two = (value: number) => String(value).padStart(2, "0");

/** "1:02:07", a place in a film. */
const placeIn = (atS: number) => {
  const s = Math.max(0, Math.floor(atS));
  const [h, m] = [Math.floor(s / 3600), Math.floor(s / 60) % 60];
  return h > 0 ? `${h}:${two(m)}:${two(s % 60)}` : `${m}:${two(s % 60)}`;
};

/**
 * Chapters as lines of text, as films are described with them. The first begins with the film.
 *
 * @example "0:00 Start\\n12:31 Tour on asphalt, 3.1 mi"
 */
export function writeChapters(chapters: readonly Chapter[]): string {
  const begun =
    chapters[0] && chapters[0].atS < 1 ? chapters : [{ atS: 0, title: "Before the ride" }, ...chapters];
  return `${begun.map(({ atS, title }) => `${placeIn(atS)} ${title}`).join("\n")}\n`;
}
