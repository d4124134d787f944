import { dayText } from "#core/base";

/** What stands at the foot of a page: which edition, of what day, under which conditions. */
export function footOf(
  edition: { readonly number: number; readonly at: string; readonly reference: string | null } | null,
): string {
  if (!edition) return "Draft, not published. Made with Barometron.";
  return [
    `Edition ${edition.number}`,
    dayText(edition.at),
    edition.reference ? `under ${edition.reference}` : "as ridden",
    "made with Barometron",
  ].join(" · ");
}
