import { SaxesParser, type SaxesTagPlain } from "saxes";
import { err, ok, type Result } from "#core/base";

/** What is told of an XML file as it is passed by. */
export interface XmlReader {
  open(tag: SaxesTagPlain): void;
  text(piece: string): void;
  close(): void;
}

/** How a refusal names what should be exported again. */
export interface XmlWords {
  readonly path: string;
  /** "the track again as GPX 1.1". */
  readonly again: string;
}

/** How much of the text is read between two words on the progress, characters. */
const CHUNK = 200_000;

/** The name of an element without its prefix. */
export const localName = (name: string): string => name.slice(name.indexOf(":") + 1);

/**
 * Reads through an XML file once. A document type or entity declaration is refused unread, since no recorder writes one.
 *
 * @param step is told the share that has been read
 */
export function passThrough(
  text: string,
  reader: XmlReader,
  { path, again }: XmlWords,
  step: (share: number) => void = () => undefined,
): Result<true> {
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    return err(
      "xml-entities",
      path,
      `This file declares XML entities, which no recorder does: it was not read. Export ${again}.`,
    );
  const parser = new SaxesParser();
  parser.on("opentag", (tag) => reader.open(tag));
  parser.on("text", (piece) => reader.text(piece));
  parser.on("closetag", () => reader.close());
  try {
    for (let at = 0; at < text.length; at += CHUNK) {
      parser.write(text.slice(at, at + CHUNK));
      step(Math.min(1, (at + CHUNK) / text.length));
    }
    parser.close();
  } catch {
    return err(
      "broken-xml",
      path,
      `The file breaks off or is not XML (line ${parser.line}): export ${again}.`,
    );
  }
  return ok(true);
}
