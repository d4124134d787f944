import { dayOf, text } from "#core/base";
import { z } from "zod";

/**
 * What is kept of bikes, packs, riders, set-ups and tests, in SI units: the same schemas for forms, database, import and
 * the open bundle. `pencil` names the fields that still hold an assumed default; the others are ink.
 */
export const named = (what: string) =>
  text(`Type the ${what}'s name.`)
    .trim()
    .min(1, `Type the ${what}'s name.`)
    .max(120, "A name holds 120 characters.");
export const words = text().trim().max(2000, "That is over 2000 characters: keep it shorter.").default("");
/** Names of fields that hold an assumption. */
export const pencil = z.array(text().max(40)).max(60).default([]);
/** A number between two limits, with one sentence for all that is not. */
export const number = (least: number, most: number, sentence: string) =>
  z.number({ error: sentence }).min(least, sentence).max(most, sentence);
export const day = (example = "2024-05-18") => dayOf(example);
