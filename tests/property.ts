import fc from "fast-check";

/**
 * Property tests draw the same cases in every run, so that a change which breaks one is the change that did it. Others are drawn by
 * `PROPERTY_SEED=7 npm run unit`, or `PROPERTY_SEED=any` for a seed nobody chose.
 */
const chosen = process.env.PROPERTY_SEED ?? "20261018";
if (chosen !== "any") fc.configureGlobal({ seed: Number(chosen) });

/** How often a file is damaged: the same places in every run, so that more of them say little; `PROPERTY_MANY=10000` for a long look. */
export const MANY = Number(process.env.PROPERTY_MANY ?? 2000);

export default fc;
