import { and, isNull, lt, or } from "drizzle-orm";
import type { Database } from "../client.ts";
import { invitation, phone, rateLimit, session, shareLink, verification } from "./schema.ts";

/** What has ended is kept this long, so that somebody who asks why can be told, ms. */
const KEPT_MS = 30 * 86_400_000;

/** Drops what has run out: sessions and counted tries at once; invitations, links and codes nobody scanned a month after. */
export async function forgetExpired(db: Database, now = new Date()): Promise<void> {
  const before = new Date(now.getTime() - KEPT_MS);
  await db.delete(session).where(lt(session.expiresAt, now));
  await db.delete(verification).where(lt(verification.expiresAt, now));
  await db.delete(rateLimit).where(lt(rateLimit.expire, now.getTime()));
  await db.delete(invitation).where(or(lt(invitation.expiresAt, before), lt(invitation.usedAt, before)));
  await db.delete(shareLink).where(or(lt(shareLink.expiresAt, before), lt(shareLink.takenBackAt, before)));
  await db.delete(phone).where(and(isNull(phone.pairedAt), lt(phone.codeUntil, before)));
}
