import type { Decimal } from "#core/base";
import { CARD_SIZES, headlineCard, stripCard, type Card } from "#core/telling";
import type { Database } from "#db/client";
import { loadRecord } from "#db/record";
import { cachedAnalysis } from "#db/results";
import { cardSvg, type CardLook } from "../drawing/card";
import { pngOf } from "../drawing/png.server";
import { drawnFor } from "../reader.server";
import { stripResults } from "../strip/view";

/** What a card is drawn from: ready made, or a test whose headline or strip it is. */
export type CardFrom =
  { readonly card: Card } | { readonly testId: string; readonly kind: "headline" | "strip" };

export interface CardAsk {
  readonly from: CardFrom;
  readonly look: CardLook;
  readonly format: "png" | "svg";
  readonly decimal: Decimal;
}

/** A card as a picture or as SVG, with its title; null where its test has no figure. */
export interface DrawnCard {
  readonly title: string;
  readonly body: string | Uint8Array;
}

/** Draws a card, where it holds nobody up. Throws `CannotDraw` where the letters are missing. */
export async function drawCard(
  db: Database,
  { from, look, format, decimal }: CardAsk,
): Promise<DrawnCard | null> {
  const drawn = (svg: string, title: string): DrawnCard => ({
    title,
    body: format === "svg" ? svg : pngOf(svg, CARD_SIZES[look.size][0]),
  });
  if ("card" in from)
    return drawn(
      drawnFor(decimal, () => cardSvg(from.card, null, look)),
      from.card.title,
    );
  const [record, cached] = await Promise.all([loadRecord(db, from.testId), cachedAnalysis(db, from.testId)]);
  const result = cached?.result;
  if (!record || !result?.ok) return null;
  const card = from.kind === "strip" ? stripCard(record, result.value) : headlineCard(record, result.value);
  const strip =
    from.kind === "strip"
      ? { results: stripResults(result.value), levels: record.bike.levels, system: look.system }
      : null;
  return drawn(
    drawnFor(decimal, () => cardSvg(card, strip, look)),
    `${record.bike.name} ${record.test.title}`,
  );
}
