import { data } from "react-router";

/** How long a page waits for what is being reckoned before it answers with what is known, ms. */
export const PATIENCE_MS = 350;

/** What a promise comes to within some time; undefined when it takes longer, and goes on. */
export async function within<T>(promise: Promise<T>, ms = PATIENCE_MS): Promise<T | undefined> {
  // What comes too late may fail too late: nobody hears of it.
  promise.catch(() => undefined);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<undefined>((resolve) => {
    timer = setTimeout(() => resolve(undefined), ms);
  });
  try {
    return await Promise.race([promise, late]);
  } finally {
    clearTimeout(timer);
  }
}

/** What a page gets that has nothing to show yet: it says so, and asks again by itself. */
export interface StillReckoning {
  readonly reckoning: true;
  readonly stale: number;
  readonly all: number;
}

/** Whether something thrown says that figures are still being calculated. */
export const isReckoning = (thrown: unknown): boolean => {
  const { data: said } = (thrown ?? {}) as { readonly data?: unknown };
  return typeof said === "object" && said !== null && "reckoning" in said;
};

/** @throws always: the frame shows how far the reckoning is. */
export function stillReckoning(counts: { readonly stale: number; readonly all: number }): never {
  throw data({ reckoning: true, ...counts } satisfies StillReckoning, {
    status: 202,
    headers: { "Retry-After": "1" },
  });
}
