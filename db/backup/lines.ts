import { BadBackup } from "./format.ts";

const NEW_LINE = 0x0a;
/** The longest line there can be: a track of half a million points. */
const LONGEST = 256 * 1024 * 1024;

/** A stream's bytes line by line, each with its line break. What follows the last break is dropped, and told. */
export async function* linesOf(bytes: AsyncIterable<Buffer>): AsyncGenerator<Buffer> {
  let held: Buffer[] = [];
  let heldBytes = 0;
  for await (const chunk of bytes) {
    let from = 0;
    for (let at = chunk.indexOf(NEW_LINE); at >= 0; at = chunk.indexOf(NEW_LINE, from)) {
      const piece = chunk.subarray(from, at + 1);
      yield held.length ? Buffer.concat([...held, piece]) : piece;
      held = [];
      heldBytes = 0;
      from = at + 1;
    }
    if (from < chunk.length) {
      held.push(chunk.subarray(from));
      heldBytes += chunk.length - from;
    }
    if (heldBytes > LONGEST) throw new BadBackup("It is not a backup of Barometron.");
  }
  if (heldBytes > 0) throw new BadBackup("It breaks off before its end: the copy of it was cut short.");
}
