import { useRouteLoaderData } from "react-router";
import type { System } from "#core/quantities";

/** The units the person reads in. */
export function useSystem(): System {
  const root = useRouteLoaderData("root") as { readonly system: System } | undefined;
  return root?.system ?? "imperial";
}
