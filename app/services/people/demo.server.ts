import { randomBytes } from "node:crypto";
import { DEMO_DESK } from "#db/schema";
import { cookieOf } from "./people.server";
import { isHost, type Principal } from "./principal";

/** Whoever looks around the demo desk has this cookie, with the run's own mark: the next start shows everybody their own desk. */
const DEMO_COOKIE = "barometron-demo";
const run = (process.env["BAROMETRON_RUN"] ??= randomBytes(9).toString("base64url"));

const cookie = (value: string, ageS: number, isSecure: boolean) =>
  `${DEMO_COOKIE}=${value}; Path=/; Max-Age=${ageS}; HttpOnly; SameSite=Lax${isSecure ? "; Secure" : ""}`;

const DAY_S = 86_400;
export const toDemo = (isSecure: boolean) => cookie(run, DAY_S, isSecure);
export const fromDemo = (isSecure: boolean) => cookie("", 0, isSecure);

/** Whether somebody may look around the demo desk: whoever sits at the machine, and its host. */
export const mayLookAround = (principal: Principal): boolean =>
  principal.kind === "machine" || (principal.kind === "person" && isHost(principal));

/** Who asks, at the demo desk where they went there: there they change what they like, and own nothing. */
export function orAtDemo(principal: Principal, request: Request): Principal {
  if (!mayLookAround(principal) || cookieOf(request, DEMO_COOKIE) !== run) return principal;
  return principal.kind === "person"
    ? { ...principal, deskId: DEMO_DESK, role: "editor" }
    : { kind: "machine", atDemo: true };
}

/** Whether somebody is at the demo desk. */
export const isAtDemo = (principal: Principal): boolean =>
  principal.kind === "machine"
    ? principal.atDemo === true
    : principal.kind === "person" && principal.deskId === DEMO_DESK;
