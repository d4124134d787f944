import type { Page } from "@playwright/test";

/** Every kind of page, by what leads there. */
export async function everyPage(page: Page): Promise<readonly string[]> {
  const found = new Set([
    "/",
    "/quick",
    "/bikes/new",
    "/plan/courses/import",
    "/compare/sweeps/new",
    "/nowhere",
  ]);
  const kinds = new Map<string, string>();
  const kindOf = (path: string) => path.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, ":id").replace(/=[^&]*/g, "=");
  const queue = [
    "/",
    "/bikes",
    "/plan",
    "/ride",
    "/strip",
    "/compare",
    "/compare/sweeps",
    "/compare/climbs",
    "/sheet",
  ];
  queue.push("/compare/claims", "/compare/references", "/settings");
  for (const path of queue) found.add(path);
  for (let at = 0; at < queue.length && at < 60; at += 1) {
    const response = await page.request.get(queue[at]!);
    if (!response.headers()["content-type"]?.includes("html")) continue;
    const html = await response.text();
    for (const [, raw] of html.matchAll(/<a[^>]+href="(\/[^"#]*)"/g)) {
      const path = raw!.replaceAll("&amp;", "&");
      if (
        /\.(ics|gpx|json|txt|zip)$|\/record$|\/readings\/|\/backups\/|\/(pdf|html|md|json|png|svg)(\?|$)/.test(
          path,
        ) ||
        kinds.has(kindOf(path))
      )
        continue;
      kinds.set(kindOf(path), path);
      found.add(path);
      queue.push(path);
    }
  }
  return [...found];
}
