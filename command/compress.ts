import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import { BUILD } from "./paths.ts";

/** Text that is worth it, and the size from which it is, bytes. */
const TEXT = /\.(js|css|svg|html|json|webmanifest)$/;
const LEAST = 700;

/** Writes each text file of the client once more compressed, so that serving it costs nothing: .br and .gz beside it. */
export async function compressClient(): Promise<void> {
  const client = join(BUILD, "client");
  for (const name of readdirSync(client, { recursive: true, encoding: "utf8" })) {
    if (!TEXT.test(name)) continue;
    const path = join(client, name);
    const bytes = readFileSync(path);
    if (bytes.length < LEAST) continue;
    const params = { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length };
    writeFileSync(`${path}.br`, brotliCompressSync(bytes, { params }));
    writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
  }
}
