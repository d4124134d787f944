/** The colours of a drawing by the role they have on screen, and none behind it where it lies over a film. */
const DAY = {
  bone: "#f6f3ea",
  sheet: "#ffffff",
  rule: "#d8d2c2",
  ink: "#1c2b30",
  quiet: "#56646a",
  spruce: "#0f5c5c",
  ochre: "#8f5e06",
  "ochre-fill": "#b9770e",
  rust: "#a63d22",
  slate: "#3d6a96",
  land: "#e8e2d1",
  tint: "#cfdedb",
};

const DUSK: typeof DAY = {
  bone: "#14201f",
  sheet: "#1c2a29",
  rule: "#3b4b49",
  ink: "#eef2ea",
  quiet: "#b9c6c0",
  spruce: "#8fd6ca",
  ochre: "#ecbb6a",
  "ochre-fill": "#c98a24",
  rust: "#f5a58c",
  slate: "#a6c9ea",
  land: "#2a3a38",
  tint: "#2f4745",
};

export const DRAWING_THEMES = ["light", "dusk", "transparent"] as const;
export type DrawingTheme = (typeof DRAWING_THEMES)[number];

/** What lies over a film is read on whatever is behind it: light letters, as at dusk. */
export const COLOURS: Readonly<Record<DrawingTheme, typeof DAY>> = {
  light: DAY,
  dusk: DUSK,
  transparent: DUSK,
};

/**
 * A drawing of the page's own parts with its colours written out: outside of a page nothing says what they are.
 *
 * @example inColours('<path stroke="var(--color-ink)"/>', "light") === '<path stroke="#1c2b30"/>'
 */
export function inColours(svg: string, theme: DrawingTheme): string {
  const colours: Readonly<Record<string, string>> = COLOURS[theme];
  return (
    svg
      .replace(/var\(--color-([a-z-]+)\)/g, (whole, role: string) => colours[role] ?? whole)
      .replaceAll("currentColor", COLOURS[theme].ink)
      // The unpacked fonts have two weights.
      .replaceAll(`font-weight="650"`, `font-weight="700"`)
  );
}
