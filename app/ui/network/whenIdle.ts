/** What of the router is asked: whether anything of it is under way. */
export interface IdleRouter {
  readonly state: {
    readonly navigation: { readonly state: string };
    readonly revalidation: string;
    readonly fetchers: ReadonlyMap<string, { readonly state: string }>;
  };
  subscribe(onChange: () => void): () => void;
}

const isIdle = ({ state }: IdleRouter): boolean =>
  state.navigation.state === "idle" &&
  state.revalidation === "idle" &&
  [...state.fetchers.values()].every((fetcher) => fetcher.state === "idle");

/**
 * Does something once nothing of the router is under way, at once when nothing is. The page's data asked for again in the middle of a
 * save would have the router drop where that save leads to, or go back to the page it came from.
 */
export function whenIdle(router: IdleRouter, begin: () => void): void {
  if (isIdle(router)) return begin();
  const unsubscribe = router.subscribe(() => {
    if (!isIdle(router)) return;
    unsubscribe();
    // The router is still in the middle of saying so: what begins now would not be told from what has just ended.
    setTimeout(() => whenIdle(router, begin), 0);
  });
}
