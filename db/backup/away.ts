import { copyFile, mkdir, readdir, readFile, rename, rm, stat } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import { AwsClient } from "aws4fetch";
import { seal } from "./sealed.ts";

/** Where sealed backups go besides the desk's own folder, and what opens them. */
export interface Away {
  /** A folder, or the address of a bucket and what its files' names begin with: https://store.example/bucket/desk. */
  readonly to: string;
  readonly passphrase: string;
  /** Of a bucket. */
  readonly key?: string | undefined;
  readonly secret?: string | undefined;
  readonly region?: string | undefined;
}

/** What the environment says of it; null when backups stay at home. */
export function awayOf(env: Readonly<Record<string, string | undefined>>): Away | null {
  const to = env["BAROMETRON_BACKUP_TO"];
  if (!to) return null;
  return {
    to,
    passphrase: env["BAROMETRON_BACKUP_PASSPHRASE"] ?? "",
    key: env["BAROMETRON_S3_KEY"],
    secret: env["BAROMETRON_S3_SECRET"],
    region: env["BAROMETRON_S3_REGION"],
  };
}

/** Sealed backups that stay in a folder; of a bucket its own rules decide. */
const KEPT = 30;
const ENDING = ".sealed";

async function toFolder(sealed: string, folder: string, name: string): Promise<void> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const part = join(folder, `${name}.part`);
  await copyFile(sealed, part);
  if ((await stat(part)).size !== (await stat(sealed)).size) throw new Error("It did not arrive whole.");
  await rename(part, join(folder, name));
  const all = (await readdir(folder)).filter((each) => /^desk-[\d-]+\.backup\.sealed$/.test(each)).sort();
  for (const old of all.slice(0, -KEPT)) await rm(join(folder, old));
}

async function toBucket(sealed: string, away: Away, name: string): Promise<void> {
  if (!away.key || !away.secret)
    throw new Error("A bucket needs BAROMETRON_S3_KEY and BAROMETRON_S3_SECRET.");
  const client = new AwsClient({
    ...{ accessKeyId: away.key, secretAccessKey: away.secret, service: "s3" },
    region: away.region ?? "us-east-1",
    retries: 3,
  });
  const answer = await client.fetch(`${away.to.replace(/\/$/, "")}/${encodeURIComponent(name)}`, {
    method: "PUT",
    body: new Uint8Array(await readFile(sealed)),
    headers: { "content-type": "application/octet-stream" },
  });
  if (!answer.ok) throw new Error(`The store answered ${answer.status}.`);
}

/**
 * Seals a backup and sends it away. Nothing but the sealed file leaves.
 *
 * @returns the name it has there
 */
export async function sendAway(backup: string, away: Away): Promise<string> {
  const name = `${basename(backup)}${ENDING}`;
  const sealed = join(dirname(backup), `.${name}`);
  try {
    await seal(backup, sealed, away.passphrase);
    await (/^https?:\/\//.test(away.to) ? toBucket(sealed, away, name) : toFolder(sealed, away.to, name));
    return name;
  } finally {
    await rm(sealed, { force: true });
  }
}
