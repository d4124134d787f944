import { createCipheriv, createDecipheriv, randomBytes, scrypt } from "node:crypto";
import { createReadStream, createWriteStream } from "node:fs";
import { open, rename, rm } from "node:fs/promises";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { BadBackup } from "./format.ts";

/**
 * A backup for places that are somebody else's: AES-256-GCM under a key made of a passphrase (scrypt, RFC 7914). The file is
 * the first line, salt, nonce, what is sealed, and the tag that shows that nothing of it was changed.
 */
const FIRST_LINE = Buffer.from("barometron sealed backup 1\n");
const [SALT, NONCE, TAG, KEY] = [16, 12, 16, 32];
const HEAD = FIRST_LINE.length + SALT + NONCE;
const COST = { N: 32_768, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };
const LEAST_PASSPHRASE = 12;

const keyOf = promisify(scrypt) as (
  passphrase: string,
  salt: Buffer,
  length: number,
  cost: typeof COST,
) => Promise<Buffer>;

/** Seals a file into another one, which is there whole or not at all. */
export async function seal(file: string, to: string, passphrase: string): Promise<void> {
  if (passphrase.length < LEAST_PASSPHRASE)
    throw new Error(`A backup is sealed with a passphrase of ${LEAST_PASSPHRASE} characters or more.`);
  const [salt, nonce] = [randomBytes(SALT), randomBytes(NONCE)];
  const cipher = createCipheriv("aes-256-gcm", await keyOf(passphrase, salt, KEY, COST), nonce);
  const part = `${to}.${process.pid}.part`;
  try {
    await pipeline(
      createReadStream(file),
      async function* (chunks: AsyncIterable<Buffer>) {
        yield Buffer.concat([FIRST_LINE, salt, nonce]);
        for await (const chunk of chunks) yield cipher.update(chunk);
        yield cipher.final();
        yield cipher.getAuthTag();
      },
      createWriteStream(part, { mode: 0o600 }),
    );
    await rename(part, to);
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}

/** Whether a file is a sealed backup, by how it begins. */
export async function isSealed(file: string): Promise<boolean> {
  const handle = await open(file, "r");
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(FIRST_LINE.length), 0, FIRST_LINE.length, 0);
    return bytesRead === FIRST_LINE.length && buffer.equals(FIRST_LINE);
  } finally {
    await handle.close();
  }
}

/**
 * Opens a sealed backup into a file beside it.
 *
 * @throws BadBackup when the passphrase is another one or anything of it was changed; nothing is left behind then
 */
export async function unseal(file: string, to: string, passphrase: string): Promise<void> {
  const handle = await open(file, "r");
  let size: number;
  const [head, tag] = [Buffer.alloc(HEAD), Buffer.alloc(TAG)];
  try {
    ({ size } = await handle.stat());
    if (size < HEAD + TAG) throw new BadBackup("It breaks off.");
    await handle.read(head, 0, HEAD, 0);
    await handle.read(tag, 0, TAG, size - TAG);
  } finally {
    await handle.close();
  }
  const salt = head.subarray(FIRST_LINE.length, FIRST_LINE.length + SALT);
  const decipher = createDecipheriv(
    "aes-256-gcm",
    await keyOf(passphrase, salt, KEY, COST),
    head.subarray(HEAD - NONCE),
  );
  decipher.setAuthTag(tag);
  try {
    await pipeline(
      createReadStream(file, { start: HEAD, end: size - TAG - 1 }),
      async function* (chunks: AsyncIterable<Buffer>) {
        for await (const chunk of chunks) yield decipher.update(chunk);
        yield decipher.final();
      },
      createWriteStream(to, { mode: 0o600 }),
    );
  } catch {
    await rm(to, { force: true });
    throw new BadBackup("It does not open: the passphrase is another one, or it was changed on its way.");
  }
}
