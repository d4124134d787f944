import { data, redirect } from "react-router";
import { ACCESS } from "./access";
import { mayDo, principalContext, type Principal } from "./principal";

interface Asked {
  readonly request: Request;
  readonly params: Readonly<Record<string, string | undefined>>;
  readonly context: { get(context: typeof principalContext): Principal };
}

const REFUSALS = {
  nobody: "Sign in first.",
  phone: "This phone may only add to the rides it was paired for.",
  person: "Your role at this desk does not allow this: ask its owner.",
  machine: "",
} as const;

/** The page of signing in, and from there back to where somebody wanted to go. */
function signInFrom(request: Request): string {
  const { pathname, search } = new URL(request.url);
  const path = pathname.replace(/(\/_root)?\.data$/, "") || "/";
  return `/sign-in?to=${encodeURIComponent(path + search.replace(/[?&]_routes=[^&]*/, ""))}`;
}

/**
 * Lets a request through to a route's loader or action, or refuses it.
 *
 * @throws a redirect to sign in, or a refusal with its sentence
 */
export function admit(routeId: string, does: "read" | "write", { request, params, context }: Asked): void {
  const principal = context.get(principalContext);
  if (principal.kind === "machine") return;
  const access = ACCESS.get(routeId);
  if (access && mayDo(access[does], principal, params["testId"])) return;
  if (principal.kind === "nobody" && request.method === "GET") throw redirect(signInFrom(request));
  throw data(access ? REFUSALS[principal.kind] : "There is nothing at this address.", {
    status: access ? (principal.kind === "nobody" ? 401 : 403) : 404,
  });
}
