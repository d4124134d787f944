import { useEffect, useState } from "react";
import type { LongStrip } from "#app/services/strip/long";

/**
 * Logs and results of a long strip, fetched after its page; null until they are there, and for a strip that came with it.
 *
 * @param address of what is fetched, null for a strip that is not long; @param stamp of the results
 */
export function useLong(address: string | null, stamp: string): LongStrip | null {
  const [fetched, setFetched] = useState<{ readonly key: string; readonly long: LongStrip } | null>(null);
  const key = `${address} ${stamp}`;
  useEffect(() => {
    if (address === null) return;
    const left = new AbortController();
    fetch(address, { signal: left.signal })
      .then(async (response) => {
        if (response.ok) setFetched({ key, long: (await response.json()) as LongStrip });
      })
      // Given up, or without a network: the page shows what it has.
      .catch(() => undefined);
    return () => left.abort();
  }, [address, key]);
  return address === null ? null : (fetched?.long ?? null);
}
