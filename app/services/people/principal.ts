import { createContext } from "react-router";
import type { DeskOfPerson, Role } from "#db/people/people";

/** Who asks. */
export type Principal =
  /** Whoever sits at this machine, where nothing is shared. */
  | { readonly kind: "machine"; readonly atDemo?: true }
  | {
      readonly kind: "person";
      readonly userId: string;
      readonly name: string;
      /** At the desk they are at now. */
      readonly role: Role;
      readonly deskId: string;
      readonly desks: readonly DeskOfPerson[];
    }
  | {
      readonly kind: "phone";
      readonly phoneId: string;
      readonly deskId: string;
      /** Tests it may add to; empty for all of its desk. */
      readonly tests: readonly string[];
      /** Entries that it last said wait on it. */
      readonly waiting: number;
    }
  | { readonly kind: "nobody" };

export const principalContext = createContext<Principal>({ kind: "machine" });

/**
 * Who may do something: everybody, any phone, a phone at its tests, a person whose role is this or more, or the host: an owner of the
 * first desk, whose machine it is.
 */
export type Who = "anybody" | "phones" | "phone" | Role | "host";

/** The desk that was there before any other. */
const FIRST_DESK = "00000000-0000-7000-8000-000000000001";

/** Whether a phone was paired for a test. */
export const isItsTest = ({ tests }: Extract<Principal, { kind: "phone" }>, testId: string): boolean =>
  tests.length === 0 || tests.includes(testId);

/** Whether a person keeps this machine, whichever desk they are at. */
export const isHost = ({ desks }: Extract<Principal, { kind: "person" }>): boolean =>
  desks.some(({ id, role }) => id === FIRST_DESK && role === "owner");

/** Roles by what they may do, the least first. */
const RANK: Readonly<Record<Role, number>> = { viewer: 0, editor: 1, owner: 2 };

/**
 * Whether somebody may.
 *
 * @param testId of the test an address is of, where it is of one
 */
export function mayDo(who: Who, principal: Principal, testId?: string): boolean {
  if (who === "anybody" || principal.kind === "machine") return true;
  if (principal.kind === "nobody") return false;
  if (principal.kind === "phone")
    return who === "phones" || (who === "phone" && testId !== undefined && isItsTest(principal, testId));
  if (who === "host") return principal.role === "owner" && principal.deskId === FIRST_DESK;
  const role = who === "phones" ? "viewer" : who === "phone" ? "editor" : who;
  return RANK[principal.role] >= RANK[role];
}
