import { createHash, randomBytes } from "node:crypto";
import { and, count, eq, gt, isNull, sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import type { Database } from "../client.ts";
import { desk } from "../schema.ts";
import { invitation, member, session, user } from "./schema.ts";

/** What a person may do at a desk, the most first. */
export const ROLES = ["owner", "editor", "viewer"] as const;
export type Role = (typeof ROLES)[number];

/** A secret that is sent to somebody once; only its hash is kept. */
export const newSecret = () => randomBytes(24).toString("base64url");
export const secretHashOf = (secret: string) => createHash("sha256").update(secret).digest("hex");

/** An address of the kind that better-auth signs in by, made of a name; it exists nowhere, and shows no name. */
export function signInAddress(name: string): string {
  const plain = name.trim().toLowerCase().normalize("NFKC").replace(/\s+/g, " ");
  return `${createHash("sha256").update(plain).digest("hex").slice(0, 32)}@names.invalid`;
}

export interface DeskOfPerson {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}

const asRole = (role: string): Role => ROLES.find((each) => each === role) ?? "viewer";

/** The desks a person belongs to, the first they came to first. */
export async function desksOf(db: Database, userId: string): Promise<readonly DeskOfPerson[]> {
  const rows = await db
    .select({ id: member.deskId, name: desk.name, role: member.role })
    .from(member)
    .innerJoin(desk, eq(desk.id, member.deskId))
    .where(eq(member.userId, userId))
    .orderBy(member.since);
  return rows.map((row) => ({ ...row, role: asRole(row.role) }));
}

export async function listMembers(db: Database, deskId: string) {
  const rows = await db
    .select({ userId: member.userId, name: user.name, role: member.role, since: member.since })
    .from(member)
    .innerJoin(user, eq(user.id, member.userId))
    .where(eq(member.deskId, deskId))
    .orderBy(member.since);
  return rows.map((row) => ({ ...row, role: asRole(row.role) }));
}

/** Whether a desk has an owner beside one person: the last one stays. */
async function hasOtherOwner(db: Database, deskId: string, userId: string): Promise<boolean> {
  const [found] = await db
    .select({ owners: count() })
    .from(member)
    .where(and(eq(member.deskId, deskId), eq(member.role, "owner"), sql`${member.userId} <> ${userId}`));
  return (found?.owners ?? 0) > 0;
}

/**
 * Whether one person owns every desk that another belongs to. Only then may the one set the other's passphrase anew: whoever does
 * so is the other, at all of their desks. The host's is set by a host, or at the machine.
 */
export async function ownsAllDesksOf(db: Database, ownerId: string, userId: string): Promise<boolean> {
  const owned = new Set(
    (await desksOf(db, ownerId)).flatMap(({ id, role }) => (role === "owner" ? [id] : [])),
  );
  const desks = await desksOf(db, userId);
  return desks.length > 0 && desks.every(({ id }) => owned.has(id));
}

/** Voids the links by which a person's passphrase could still be set anew: who may do that has changed, or it is done. */
export async function voidResets(db: Database, userId: string): Promise<void> {
  await db
    .update(invitation)
    .set({ expiresAt: new Date(0) })
    .where(and(eq(invitation.resetOf, userId), isNull(invitation.usedAt)));
}

/**
 * Gives a member another role.
 *
 * @returns a sentence where it may not be done
 */
export async function setRole(
  db: Database,
  deskId: string,
  userId: string,
  role: Role,
): Promise<string | null> {
  if (role !== "owner" && !(await hasOtherOwner(db, deskId, userId)))
    return "A desk keeps at least one owner: make somebody else one first.";
  await db
    .update(member)
    .set({ role })
    .where(and(eq(member.deskId, deskId), eq(member.userId, userId)));
  await voidResets(db, userId);
  return null;
}

/** Takes a person off a desk; what they wrote stays, with their name. What they have open at other desks stays open. */
export async function removeMember(db: Database, deskId: string, userId: string): Promise<string | null> {
  if (!(await hasOtherOwner(db, deskId, userId)))
    return "A desk keeps at least one owner: make somebody else one first.";
  await db.delete(member).where(and(eq(member.deskId, deskId), eq(member.userId, userId)));
  await voidResets(db, userId);
  if ((await desksOf(db, userId)).length === 0) await db.delete(session).where(eq(session.userId, userId));
  return null;
}

/**
 * Forgets a person: name, passphrase, passkeys and sessions go. What they wrote stays, by somebody who is gone.
 *
 * @returns a sentence where it may not be done
 */
export async function forgetPerson(db: Database, userId: string): Promise<string | null> {
  for (const { id, role } of await desksOf(db, userId))
    if (role === "owner" && !(await hasOtherOwner(db, id, userId)))
      return "A desk keeps at least one owner: make somebody else one first.";
  await db.delete(user).where(eq(user.id, userId));
  return null;
}

const HOUR_MS = 3_600_000;
export const INVITED_HOURS = 72;

export interface InvitationOf {
  readonly deskId: string;
  readonly role: Role;
  readonly name?: string;
  /** Whose passphrase is set anew. */
  readonly resetOf?: string;
  readonly hours?: number;
}

/** Makes an invitation; its secret is shown once. A new one for a passphrase voids those before it. */
export async function invite(
  db: Database,
  { deskId, role, name = "", resetOf, hours = INVITED_HOURS }: InvitationOf,
): Promise<string> {
  const secret = newSecret();
  if (resetOf) await voidResets(db, resetOf);
  await db.insert(invitation).values({
    ...{ id: uuidv7(), deskId, role, name, resetOf: resetOf ?? null },
    secretHash: secretHashOf(secret),
    expiresAt: new Date(Date.now() + hours * HOUR_MS),
  });
  return secret;
}

/** An invitation that still holds, by its secret. */
export async function findInvitation(db: Database, secret: string) {
  const [found] = await db
    .select({ id: invitation.id, deskId: invitation.deskId, role: invitation.role, name: invitation.name })
    .from(invitation)
    .where(
      and(
        eq(invitation.secretHash, secretHashOf(secret)),
        isNull(invitation.usedAt),
        gt(invitation.expiresAt, new Date()),
      ),
    );
  if (!found) return null;
  const [reset] = await db
    .select({ userId: user.id, name: user.name })
    .from(invitation)
    .innerJoin(user, eq(user.id, invitation.resetOf))
    .where(eq(invitation.id, found.id));
  return { ...found, role: asRole(found.role), reset: reset ?? null };
}

/**
 * Uses an invitation up, once: the second who tries gets false. Before a desk has an owner only the machine makes links to it:
 * with the first owner let in, the others are void.
 */
export async function spendInvitation(
  db: Database,
  { id, deskId }: { readonly id: string; readonly deskId: string },
): Promise<boolean> {
  return db.transaction(async (tx) => {
    await tx.select({ id: desk.id }).from(desk).where(eq(desk.id, deskId)).for("update");
    const used = await tx
      .update(invitation)
      .set({ usedAt: new Date() })
      .where(and(eq(invitation.id, id), isNull(invitation.usedAt), gt(invitation.expiresAt, new Date())))
      .returning({ id: invitation.id });
    if (used.length === 1 && !(await hasOwner(tx, deskId))) await voidInvitations(tx, deskId);
    return used.length === 1;
  });
}

export async function listInvitations(db: Database, deskId: string) {
  return db
    .select({
      ...{ id: invitation.id, role: invitation.role, name: invitation.name },
      expiresAt: invitation.expiresAt,
    })
    .from(invitation)
    .where(
      and(eq(invitation.deskId, deskId), isNull(invitation.usedAt), gt(invitation.expiresAt, new Date())),
    )
    .orderBy(invitation.madeAt);
}

export async function takeBackInvitation(db: Database, deskId: string, id: string): Promise<void> {
  await db
    .update(invitation)
    .set({ expiresAt: new Date(0) })
    .where(and(eq(invitation.deskId, deskId), eq(invitation.id, id)));
}

export async function addMember(db: Database, deskId: string, userId: string, role: Role): Promise<void> {
  await db
    .insert(member)
    .values({ deskId, userId, role })
    .onConflictDoUpdate({
      target: [member.deskId, member.userId],
      set: { role },
    });
  await voidResets(db, userId);
}

/** Voids what could still let somebody in at a desk that nobody belongs to yet: a newer link takes its place. */
export async function voidInvitations(db: Pick<Database, "update">, deskId: string): Promise<void> {
  await db
    .update(invitation)
    .set({ expiresAt: new Date(0) })
    .where(and(eq(invitation.deskId, deskId), isNull(invitation.usedAt)));
}

/** Whether a desk has an owner. */
export async function hasOwner(db: Pick<Database, "select">, deskId: string): Promise<boolean> {
  const [found] = await db
    .select({ owners: count() })
    .from(member)
    .where(and(eq(member.deskId, deskId), eq(member.role, "owner")));
  return (found?.owners ?? 0) > 0;
}

/** A desk of its own beside the others, with its owner. */
export async function makeDesk(db: Database, name: string, ownerId: string): Promise<string> {
  const id = uuidv7();
  await db.transaction(async (tx) => {
    await tx.insert(desk).values({ id, name });
    await tx.insert(member).values({ deskId: id, userId: ownerId, role: "owner" });
  });
  return id;
}

export async function listDesks(db: Database) {
  return db.select({ id: desk.id, name: desk.name }).from(desk).orderBy(desk.madeAt);
}

export async function findUserNamed(db: Database, name: string) {
  const [found] = await db
    .select({ id: user.id, name: user.name })
    .from(user)
    .where(eq(user.email, signInAddress(name)));
  return found ?? null;
}
