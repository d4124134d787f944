/** Paper by day, the same roles on a dark ground at dusk. */
export type Theme = "day" | "dusk";

/** The theme a row of cookies names; day until told otherwise. */
export function themeIn(cookies: string): Theme {
  return /(?:^|; )theme=dusk/.test(cookies) ? "dusk" : "day";
}

/** The cookie of a choice, kept for a year. Set by the page itself, so that it works with no network. */
export function themeCookie(theme: Theme): string {
  return `theme=${theme}; Path=/; Max-Age=31536000; SameSite=Lax`;
}
