import { href } from "react-router";

/** A picture for a film that a page offers. */
export interface CardLink {
  readonly name: string;
  readonly to: string;
}

const card = (kind: string, name: string, search: Readonly<Record<string, string | null>>): CardLink => {
  const given = Object.entries(search).filter((pair): pair is [string, string] => Boolean(pair[1]));
  return { name, to: `${href("/sheet/cards/:kind", { kind })}?${new URLSearchParams(given)}` };
};

const ID = "([0-9a-f-]{36})";

/** The cards that the page of an address offers; empty for most. */
export function cardLinks(pathname: string, search: URLSearchParams): readonly CardLink[] {
  const idAfter = (start: string) => new RegExp(`^${start}/${ID}$`).exec(pathname)?.[1] ?? null;
  const under = search.get("under");
  const [test, bike, sweep] = [idAfter("/strip"), idAfter("/compare/bikes"), idAfter("/compare/sweeps")];
  if (test) return [card("headline", "The figure", { test }), card("strip", "The strip", { test })];
  if (bike) return [card("ranges", "Ranges", { bike, under }), card("claim", "Claims", { bike, under })];
  if (sweep) return [card("sweep", "The sweep", { sweep })];
  if (pathname === "/compare") return [card("standings", "Standings", { under })];
  const [a, b] = [search.get("a"), search.get("b")];
  if (pathname === "/compare/pair" && a && b) return [card("pair", "The pair", { a, b })];
  return [];
}
