import { Font, StyleSheet } from "@react-pdf/renderer";
import { COLOURS } from "../../drawing/colours";
import { fontPaths } from "../../drawing/fonts.server";

/** Colours of paper, by their roles. */
export const PAPER_COLOURS = COLOURS.light;
const { ink, quiet, rule, ochre } = PAPER_COLOURS;
const FAMILY = "Latin";
const FURTHER = "Further Latin";

let registered = false;

/** The shipped letters, for paper. Throws `CannotDraw` where they are missing. */
export function registerFonts(): void {
  const paths = fontPaths();
  if (registered) return;
  const src = (name: string) => paths.get(name)!;
  for (const [family, letters] of [
    [FAMILY, "latin"],
    [FURTHER, "latin-ext"],
  ] as const)
    Font.register({
      family,
      fonts: ([400, 700] as const).flatMap((fontWeight) =>
        (["normal", "italic"] as const).map((fontStyle) => ({
          ...{ fontWeight, fontStyle },
          src: src(`${letters}-${fontWeight}-${fontStyle}`),
        })),
      ),
    });
  // Words are not cut: figures and units least of all.
  Font.registerHyphenationCallback((word) => [word]);
  registered = true;
}

export const styles = StyleSheet.create({
  page: { padding: 48, fontFamily: [FAMILY, FURTHER], fontSize: 9.5, color: ink },
  // Not of the page: its foot, written page by page, would be lost.
  body: { fontSize: 9.5, lineHeight: 1.35 },
  title: { fontSize: 17, fontWeight: 700, lineHeight: 1.2 },
  line: { color: quiet, marginTop: 2, marginBottom: 10 },
  section: { marginBottom: 10 },
  heading: { fontSize: 10.5, fontWeight: 700, marginBottom: 3 },
  figures: { flexDirection: "row", flexWrap: "wrap", gap: 22 },
  figure: { maxWidth: 160 },
  large: { fontSize: 25, fontWeight: 700, lineHeight: 1.1 },
  medium: { fontSize: 16, fontWeight: 700, lineHeight: 1.1 },
  pencil: { fontStyle: "italic", color: ochre },
  says: { color: quiet, fontSize: 8 },
  row: { flexDirection: "row", borderBottomWidth: 0.6, borderBottomColor: rule, paddingVertical: 2.5 },
  label: { width: 130, paddingRight: 8, fontWeight: 700 },
  caption: { fontWeight: 700, marginTop: 4 },
  item: { flexDirection: "row", marginBottom: 2 },
  photographs: { flexDirection: "row", flexWrap: "wrap", gap: 10 },
  photograph: { width: "48%" },
  foot: { position: "absolute", bottom: 26, left: 48, right: 48, color: quiet, fontSize: 7.5 },
});
