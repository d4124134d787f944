import { and, desc, eq, gt, isNotNull, isNull } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import type { Database } from "../client.ts";
import { newSecret, secretHashOf } from "./people.ts";
import { phone } from "./schema.ts";

/** How long a code on the screen can be scanned, ms. */
export const CODE_MS = 10 * 60_000;

/** A phone still to be paired; the code's secret is told once. */
export async function newPhone(
  db: Database,
  {
    deskId,
    name,
    tests,
  }: { readonly deskId: string; readonly name: string; readonly tests: readonly string[] },
): Promise<{ readonly id: string; readonly code: string }> {
  const [id, code] = [uuidv7(), newSecret()];
  await db.insert(phone).values({
    ...{ id, deskId, name, tests: [...tests] },
    secretHash: secretHashOf(code),
    codeUntil: new Date(Date.now() + CODE_MS),
  });
  return { id, code };
}

/** Whether a code still waits to be scanned; the phone's name. */
export async function findCode(db: Database, code: string) {
  const [found] = await db
    .select({ id: phone.id, name: phone.name, tests: phone.tests })
    .from(phone)
    .where(
      and(
        eq(phone.secretHash, secretHashOf(code)),
        isNull(phone.pairedAt),
        isNull(phone.takenBackAt),
        gt(phone.codeUntil, new Date()),
      ),
    );
  return found ?? null;
}

/** Pairs a phone by its code, once; null when the code is used, old or none. */
export async function pairPhone(db: Database, code: string) {
  const secret = newSecret();
  const [paired] = await db
    .update(phone)
    .set({ secretHash: secretHashOf(secret), pairedAt: new Date(), seenAt: new Date() })
    .where(
      and(
        eq(phone.secretHash, secretHashOf(code)),
        isNull(phone.pairedAt),
        isNull(phone.takenBackAt),
        gt(phone.codeUntil, new Date()),
      ),
    )
    .returning({ tests: phone.tests });
  return paired ? { secret, tests: paired.tests } : null;
}

/** A paired phone by its own secret; none when it was taken back. */
export async function findPhone(db: Database, secret: string) {
  const [found] = await db
    .select({
      id: phone.id,
      deskId: phone.deskId,
      tests: phone.tests,
      seenAt: phone.seenAt,
      waiting: phone.waiting,
    })
    .from(phone)
    .where(
      and(eq(phone.secretHash, secretHashOf(secret)), isNotNull(phone.pairedAt), isNull(phone.takenBackAt)),
    );
  return found ?? null;
}

/** Notes that a phone was there, and how many entries it says still wait on it, where it said so. */
export async function phoneSeen(db: Database, id: string, waiting?: number): Promise<void> {
  await db
    .update(phone)
    .set({ seenAt: new Date(), ...(waiting !== undefined && { waiting }) })
    .where(eq(phone.id, id));
}

export async function listPhones(db: Database) {
  return db
    .select({
      ...{ id: phone.id, name: phone.name, tests: phone.tests, pairedAt: phone.pairedAt },
      ...{ seenAt: phone.seenAt, waiting: phone.waiting, codeUntil: phone.codeUntil },
    })
    .from(phone)
    .where(isNull(phone.takenBackAt))
    .orderBy(desc(phone.madeAt));
}

/** Takes a phone back: its next request is a stranger's. */
export async function takeBackPhone(db: Database, id: string): Promise<void> {
  await db.update(phone).set({ takenBackAt: new Date() }).where(eq(phone.id, id));
}
