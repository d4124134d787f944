import { once } from "node:events";
import { createWriteStream } from "node:fs";
import { Zip, ZipDeflate, ZipPassThrough } from "fflate";

/** A zip that is written to a file piece by piece. */
export interface ZipWriter {
  /** Begins a file in it. */
  file(name: string): { write(text: string): Promise<void>; end(): Promise<void> };
  /** A file in one piece. */
  put(name: string, text: string): Promise<void>;
  /** A file that is packed already, as it is. */
  bytes(name: string, bytes: Uint8Array): Promise<void>;
  end(): Promise<void>;
}

/** Letters that are handed on at a time. */
const PIECE = 256 * 1024;

/** @param path of the file to be made, readable by its owner only */
export function zipTo(path: string): ZipWriter {
  const stream = createWriteStream(path, { mode: 0o600 });
  const failed = once(stream, "error").then(([error]: unknown[]) => {
    throw error;
  });
  failed.catch(() => undefined);
  let full = false;
  const zip = new Zip((error, chunk, final) => {
    if (error) stream.destroy(error);
    else if (!stream.write(chunk)) full = true;
    if (final) stream.end();
  });
  const drained = async () => {
    if (!full) return;
    full = false;
    await Promise.race([once(stream, "drain"), failed]);
  };
  const encoder = new TextEncoder();
  const file: ZipWriter["file"] = (name) => {
    const entry = new ZipDeflate(name, { level: 6 });
    zip.add(entry);
    let waiting = "";
    const flush = async (final: boolean) => {
      entry.push(encoder.encode(waiting), final);
      waiting = "";
      await drained();
    };
    return {
      write: async (text) => {
        waiting += text;
        if (waiting.length >= PIECE) await flush(false);
      },
      end: () => flush(true),
    };
  };
  return {
    file,
    put: async (name, text) => {
      const entry = file(name);
      await entry.write(text);
      await entry.end();
    },
    bytes: async (name, bytes) => {
      const entry = new ZipPassThrough(name);
      zip.add(entry);
      entry.push(bytes, true);
      await drained();
    },
    end: async () => {
      const closed = once(stream, "close");
      zip.end();
      await Promise.race([closed, failed]);
    },
  };
}
