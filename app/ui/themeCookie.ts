/** Paper by day, the same roles on a dark ground at dusk; as the system has it until somebody chooses. */
export type Theme = "day" | "dusk" | "system";

/** The theme a row of cookies names. */
export function themeIn(cookies: string): Theme {
  const [, named] = /(?:^|; )theme=(day|dusk)/.exec(cookies) ?? [];
  return named === "day" || named === "dusk" ? named : "system";
}

/** The cookie of a choice, kept for a year. Set by the page itself, so that it works with no network. */
export function themeCookie(theme: Theme): string {
  return `theme=${theme}; Path=/; Max-Age=31536000; SameSite=Lax`;
}
