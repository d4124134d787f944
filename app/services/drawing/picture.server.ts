import type { Database } from "#db/client";
import { pngOf } from "./png.server";

/** A drawing of ours, and how wide its picture is, in pixels. */
export interface PictureAsk {
  readonly svg: string;
  readonly width: number;
}

/** A drawing as PNG, made where it holds nobody up. */
export const picture = (_db: Database, { svg, width }: PictureAsk): Promise<Uint8Array> =>
  Promise.resolve(pngOf(svg, width));
