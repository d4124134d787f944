export interface Choice {
  readonly value: string;
  readonly label: string;
}

/** Without accents and capitals. */
const plainly = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** Choices in which every word typed occurs, whatever its place, accents and capitals; all while nothing is typed. */
export function matching(choices: readonly Choice[], typed: string): readonly Choice[] {
  const words = plainly(typed).split(/\s+/).filter(Boolean);
  return choices.filter(({ label }) => words.every((word) => plainly(label).includes(word)));
}
