import { and, desc, eq, gt } from "drizzle-orm";
import type { Database } from "../client.ts";
import { session } from "./schema.ts";

/** Where a person is signed in, the last used first. */
export async function sessionsOf(db: Database, userId: string) {
  return db
    .select({
      ...{ id: session.id, userAgent: session.userAgent },
      ...{ since: session.createdAt, until: session.expiresAt },
    })
    .from(session)
    .where(and(eq(session.userId, userId), gt(session.expiresAt, new Date())))
    .orderBy(desc(session.updatedAt));
}

/** Ends one session of a person; another person's stays. */
export async function endSession(db: Database, userId: string, id: string): Promise<void> {
  await db.delete(session).where(and(eq(session.userId, userId), eq(session.id, id)));
}
