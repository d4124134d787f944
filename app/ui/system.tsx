import { useRouteLoaderData } from "react-router";
import { renderUnits, type Decimal, type System } from "#core/base";

/** The units the person reads in. */
export function useSystem(): System {
  const root = useRouteLoaderData("root") as { readonly system: System } | undefined;
  return root?.system ?? "imperial";
}

/** The sign before the fraction, as the server found it to be the reader's. */
export function useSentDecimal(): Decimal {
  const root = useRouteLoaderData("root") as { readonly decimal?: Decimal } | undefined;
  return root?.decimal ?? ".";
}

/** Writes a sentence of the core out in the person's units. */
export function useSpoken(): (sentence: string) => string {
  const system = useSystem();
  return (sentence) => renderUnits(sentence, system);
}
