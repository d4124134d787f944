import type { RouterContextProvider } from "react-router";
import { dbContext, peopleContext } from "#app/context";
import { principalContext, type Principal } from "#app/services/people/principal";
import { found } from "#app/ui/require.server";

const NOT_SHARED = "This desk is on this machine alone. ./barometron start --share opens it to others.";

/** What the pages about people work with; a sentence where the desk is not shared. */
export function peopleHere(context: Readonly<RouterContextProvider>) {
  return { ...found(context.get(peopleContext), NOT_SHARED), desk: context.get(dbContext) };
}

/** The person who asks; the routes' access lets nobody else here. */
export function personHere(context: Readonly<RouterContextProvider>): Extract<Principal, { kind: "person" }> {
  const principal = context.get(principalContext);
  return found(principal.kind === "person" ? principal : null, NOT_SHARED);
}
