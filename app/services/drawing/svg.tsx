import type { ReactNode } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { layOutStrip } from "#app/ui/charts/stripTracks/layout";
import type { System } from "#core/base";
import { Tracks } from "#ui/charts/stripTracks/tracks";
import type { StripResults } from "../strip/view";
import { COLOURS, inColours, type DrawingTheme } from "./colours";
import { FONT_FAMILY } from "./fontNames";

/** A drawing as one SVG, which needs nothing beside it. */
export function svgOf(width: number, height: number, theme: DrawingTheme, drawing: ReactNode): string {
  const markup = renderToStaticMarkup(
    <svg
      xmlns="http://www.w3.org/2000/svg"
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      fontFamily={`${FONT_FAMILY}, ${FONT_FAMILY} Variable, sans-serif`}
      fontSize={13}
      fill={COLOURS[theme].ink}
    >
      {drawing}
    </svg>,
  );
  return inColours(markup, theme);
}

/** What a strip is drawn from. */
export interface StripDrawing {
  readonly results: StripResults;
  readonly levels: readonly string[];
  readonly system: System;
}

/** The strip of a test, as its page draws it. */
export function stripSvg(
  { results, levels, system }: StripDrawing,
  width: number,
  theme: DrawingTheme,
): string {
  const layout = layOutStrip(results, width, system);
  return svgOf(
    width,
    layout.height,
    theme,
    <Tracks results={results} levels={levels} layout={layout} system={system} />,
  );
}
