import type { Connection, Database } from "#db/client";
import { desksOf } from "#db/people/people";
import { findPhone, phoneSeen } from "#db/people/phones";
import { DEMO_DESK, FIRST_DESK } from "#db/schema";
import { authOver, type Auth } from "./auth.server";
import type { Principal } from "./principal";
import type { Sharing } from "./sharing.server";

/** Those who may come in: sign-in, and the whole database for what must be known before a desk is. */
export interface People {
  readonly auth: Auth;
  readonly db: Database;
  readonly sharing: Sharing;
  /** One desk, for what is read by nobody of it. */
  at(deskId: string): Database;
}

export const peopleOf = (connection: Connection, sharing: Sharing): People => ({
  auth: authOver(connection.db, sharing),
  db: connection.db,
  sharing,
  at: (deskId) => connection.at({ deskId, actor: "link" }),
});

export const PHONE_COOKIE = "__Host-barometron-phone";
export const DESK_COOKIE = "__Host-barometron-desk";

/** A cookie's value; null where there is none. */
export function cookieOf(request: Request, name: string): string | null {
  for (const each of (request.headers.get("Cookie") ?? "").split("; "))
    if (each.startsWith(`${name}=`)) return each.slice(name.length + 1);
  return null;
}

const YEAR_S = 31_536_000;
/** A cookie that no script reads, that no other host gets, and that goes over HTTPS only. */
export const keptCookie = (name: string, value: string, ageS = YEAR_S) =>
  `${name}=${value}; Path=/; Max-Age=${ageS}; Secure; HttpOnly; SameSite=Lax`;

/** A phone's presence is written at most so often, ms. */
const SEEN_EVERY_MS = 20_000;

async function phoneAsking(db: Database, request: Request): Promise<Principal | null> {
  const secret = cookieOf(request, PHONE_COOKIE);
  const found = secret === null ? null : await findPhone(db, secret);
  if (!found) return null;
  if (Date.now() - (found.seenAt?.getTime() ?? 0) > SEEN_EVERY_MS) await phoneSeen(db, found.id);
  return {
    kind: "phone",
    phoneId: found.id,
    deskId: found.deskId,
    tests: found.tests,
    waiting: found.waiting,
  };
}

/** Who asks: a person by their session, else a phone by its secret, else nobody. */
export async function whoAsks({ auth, db }: People, request: Request): Promise<Principal> {
  const session = await auth.api.getSession({ headers: request.headers });
  if (session) {
    const desks = await desksOf(db, session.user.id);
    const wanted = cookieOf(request, DESK_COOKIE);
    const desk = desks.find(({ id }) => id === wanted) ?? desks[0];
    const { id: userId, name } = session.user;
    if (desk) return { kind: "person", userId, name, role: desk.role, deskId: desk.id, desks };
  }
  return (await phoneAsking(db, request)) ?? { kind: "nobody" };
}

/** The desk somebody works at, and under which name the trail has them. */
export function scopeFor(principal: Principal) {
  switch (principal.kind) {
    case "person":
      return { deskId: principal.deskId, actor: principal.userId };
    case "phone":
      return { deskId: principal.deskId, actor: `phone/${principal.phoneId}` };
    case "machine":
      return { deskId: principal.atDemo ? DEMO_DESK : FIRST_DESK, actor: "" };
    case "nobody":
      // No desk has this id: whoever is nobody sees no rows, whatever a page forgets.
      return { deskId: "00000000-0000-0000-0000-000000000000", actor: "nobody" };
  }
}
