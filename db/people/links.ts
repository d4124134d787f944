import { and, desc, eq, gt, isNull, sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import type { Database } from "../client.ts";
import { newSecret, secretHashOf } from "./people.ts";
import { shareLink } from "./schema.ts";

/** What a link shows: a test as its sheet would, the page of a sheet as it stands, or one edition of it as it was published. */
export const LINK_KINDS = ["test", "sheet", "edition"] as const;
export type LinkKind = (typeof LINK_KINDS)[number];

const DAY_MS = 86_400_000;

/** A link by which anybody reads one page until it expires; its secret is told once. */
export async function newLink(
  db: Database,
  of: {
    readonly deskId: string;
    readonly kind: LinkKind;
    readonly targetId: string;
    readonly days: number;
    readonly note: string;
  },
): Promise<string> {
  const secret = newSecret();
  const { deskId, kind, targetId, days, note } = of;
  await db.insert(shareLink).values({
    ...{ id: uuidv7(), deskId, kind, targetId, note },
    secretHash: secretHashOf(secret),
    expiresAt: new Date(Date.now() + days * DAY_MS),
  });
  return secret;
}

/** What a link leads to while it holds, counted as read; null for one that is old, taken back or none. */
export async function followLink(db: Database, secret: string) {
  const [found] = await db
    .update(shareLink)
    .set({ reads: sql`${shareLink.reads} + 1`, lastReadAt: new Date() })
    .where(
      and(
        eq(shareLink.secretHash, secretHashOf(secret)),
        isNull(shareLink.takenBackAt),
        gt(shareLink.expiresAt, new Date()),
      ),
    )
    .returning({ deskId: shareLink.deskId, kind: shareLink.kind, targetId: shareLink.targetId });
  const kind = LINK_KINDS.find((each) => each === found?.kind);
  return found && kind ? { ...found, kind } : null;
}

export async function listLinks(db: Database) {
  return db
    .select({
      ...{ id: shareLink.id, kind: shareLink.kind, targetId: shareLink.targetId, note: shareLink.note },
      ...{ madeAt: shareLink.madeAt, expiresAt: shareLink.expiresAt },
      ...{ reads: shareLink.reads, lastReadAt: shareLink.lastReadAt },
    })
    .from(shareLink)
    .where(and(isNull(shareLink.takenBackAt), gt(shareLink.expiresAt, new Date())))
    .orderBy(desc(shareLink.madeAt));
}

export async function takeBackLink(db: Database, id: string): Promise<void> {
  await db.update(shareLink).set({ takenBackAt: new Date() }).where(eq(shareLink.id, id));
}
