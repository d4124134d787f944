/** The family as it names itself, which drawings ask for. */
export const FONT_FAMILY = "Atkinson Hyperlegible Next";

/** Files of the font that pictures and paper are drawn with: plain and slanted, regular and bold, for all Latin letters. */
export const FONT_FILES = ["latin", "latin-ext"].flatMap((letters) =>
  [400, 700].flatMap((weight) => ["normal", "italic"].map((style) => `${letters}-${weight}-${style}`)),
);
