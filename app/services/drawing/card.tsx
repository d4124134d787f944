import type { ReactNode } from "react";
import { stepsCovering } from "#app/ui/charts/scale";
import { layOutStrip } from "#app/ui/charts/stripTracks/layout";
import {
  formatBare,
  fromSi,
  halfWidth95,
  renderUnits,
  unitOf,
  writeUncertain,
  type DimensionName,
  type System,
} from "#core/base";
import { CARD_SIZES, type Card, type CardContent, type CardRow, type CardSize } from "#core/telling";
import { Tracks } from "#ui/charts/stripTracks/tracks";
import { COLOURS, type DrawingTheme } from "./colours";
import { Curves } from "./curves";
import { wrapped } from "./letters";
import { Rows, rowsHeight, type DrawnRow } from "./rows";
import { svgOf, type StripDrawing } from "./svg";

/** How a card is drawn. */
export interface CardLook {
  readonly size: CardSize;
  readonly theme: DrawingTheme;
  readonly system: System;
}

interface Room {
  readonly width: number;
  readonly height: number;
  readonly stacked: boolean;
}

interface InsideProps extends Room, Pick<CardLook, "theme" | "system"> {}

const MARGIN = 96;
const TITLE = 60;
const LINE = 31;
const FOOT = 24;
/** Rows that a card has room for, lying and standing; what is more is counted. */
const MOST_ROWS = { lying: 11, standing: 15 } as const;
/** Highest a row is drawn. */
const HIGHEST_ROW = { lying: 104, standing: 150 } as const;
/** A strip in fewer of its own pixels has no room for its words. */
const NARROWEST_STRIP = 500;
/** Behind what lies over a film, so that it is read on anything. */
const SCRIM_OPACITY = 0.74;

type Figures = Extract<CardContent, { readonly kind: "figures" }>["figures"];

/** A figure in very large letters, the others in a row or a column under it. */
function FiguresInside({
  figures,
  width,
  stacked,
  theme,
  system,
}: InsideProps & { readonly figures: Figures }) {
  const colours = COLOURS[theme];
  const [first, ...rest] = figures;
  if (!first) return null;
  const large = writeUncertain(first.value, first.dimension, system, first.signed);
  const each = stacked ? width : width / Math.max(1, rest.length);
  return (
    <g>
      <text y={230} fontSize={250} fontWeight={700}>
        {large.value}
      </text>
      <text y={330} fontSize={76}>{`${large.spread} ${large.unit}`}</text>
      <text y={386} fontSize={32} fill={colours.quiet}>
        {renderUnits(first.says, system)}
      </text>
      {rest.map(({ key, value, dimension, says, pencil, signed }, i) => {
        const { value: text, spread, unit } = writeUncertain(value, dimension, system, signed);
        const [x, y] = stacked ? [0, 560 + i * 220] : [i * each, 580];
        return (
          <g key={key} transform={`translate(${x} ${y})`}>
            <text
              fontSize={84}
              fontWeight={700}
              fontStyle={pencil ? "italic" : "normal"}
              fill={pencil ? colours.ochre : colours.ink}
            >
              {text}
              <tspan dx={14} fontSize={40} fontWeight={400}>{`${spread} ${unit}`}</tspan>
            </text>
            {wrapped(renderUnits(says, system), each - 30, 29, 2).map((line, at) => (
              <text key={line} y={46 + 36 * at} fontSize={29} fill={colours.quiet}>
                {line}
              </text>
            ))}
          </g>
        );
      })}
    </g>
  );
}

/** A card's rows in the units of a system. A span longer than its figure is cut at twice it. */
function drawnRows(rows: readonly CardRow[], dimension: DimensionName, system: System): readonly DrawnRow[] {
  const unit = unitOf(dimension, system);
  const shown = (value: number) => fromSi(value, dimension, unit);
  return rows.map(({ name, value, span, claimed, hollow }) => {
    const written = writeUncertain(value, dimension, system);
    const by = halfWidth95(value);
    const { low, high } = span ?? { low: value.mean - by, high: value.mean + by };
    return {
      ...{ name, hollow },
      says: span
        ? `${formatBare(low, dimension, system, 0)} to ${formatBare(high, dimension, system, 0)} ${unit}`
        : `${written.value} ${written.spread}`,
      mean: shown(value.mean),
      low: shown(Math.max(0, low)),
      high: shown(Math.min(2 * value.mean, high)),
      claimed: claimed && { low: shown(claimed.low), high: shown(claimed.high) },
    };
  });
}

function RowsInside({
  content,
  width,
  height,
  stacked,
  theme,
  system,
}: InsideProps & { readonly content: Extract<CardContent, { readonly kind: "rows" }> }) {
  const { dimension, says } = content;
  const most = MOST_ROWS[stacked ? "standing" : "lying"];
  const rows = drawnRows(content.rows, dimension, system);
  const shown = rows.slice(0, most);
  const steps = stepsCovering(
    Math.max(1e-6, ...shown.flatMap(({ high, claimed }) => [high, claimed?.high ?? 0])),
    4,
  );
  const each = Math.min(
    HIGHEST_ROW[stacked ? "standing" : "lying"],
    (height - 110) / Math.max(1, shown.length),
  );
  const size = stacked ? Math.min(38, 0.3 * each) : Math.min(38, 0.46 * each);
  const foot = rowsHeight(shown.length, each, size);
  return (
    <g>
      <Rows {...{ rows: shown, width, each, size, theme, steps, stacked }} />
      <text y={foot + 1.3 * size} fontSize={0.85 * size} fill={COLOURS[theme].quiet}>
        {`${unitOf(dimension, system)}, ${says}${rows.length > most ? `; ${rows.length - most} more are not shown` : ""}`}
      </text>
    </g>
  );
}

/** The strip as large as there is room for. */
function StripInside({ strip, width, height }: Room & { readonly strip: StripDrawing }) {
  const { results, levels, system } = strip;
  const narrow = layOutStrip(results, NARROWEST_STRIP, system);
  const scale = Math.min(height / narrow.height, width / NARROWEST_STRIP);
  const layout = layOutStrip(results, width / scale, system);
  return (
    <g transform={`scale(${scale})`} fontSize={13}>
      <Tracks results={results} levels={levels} layout={layout} system={system} />
    </g>
  );
}

function inside(card: Card, strip: StripDrawing | null, props: InsideProps): ReactNode {
  const { content } = card;
  switch (content.kind) {
    case "figures":
      return <FiguresInside figures={content.figures} {...props} />;
    case "rows":
      return <RowsInside content={content} {...props} />;
    case "curves":
      return <Curves content={content} {...props} size={30} />;
    case "strip":
      return strip ? <StripInside strip={strip} {...props} /> : null;
  }
}

/**
 * A card for a film as SVG: title, conditions, and what it shows, in one of the sizes films have.
 *
 * @param strip what a strip's card is drawn from; null for all others
 */
export function cardSvg(card: Card, strip: StripDrawing | null, { size, theme, system }: CardLook): string {
  const [width, height] = CARD_SIZES[size];
  const colours = COLOURS[theme];
  const room = width - 2 * MARGIN;
  const title = wrapped(renderUnits(card.title, system), room, TITLE, 2);
  const line = wrapped(renderUnits(card.line, system), room, LINE, 2);
  const head = MARGIN + title.length * 1.15 * TITLE;
  const top = head + line.length * 1.35 * LINE + 44;
  const left = height - top - MARGIN - FOOT;
  return svgOf(
    width,
    height,
    theme,
    <>
      <rect
        width={width}
        height={height}
        fill={colours.bone}
        {...(theme === "transparent" && { fillOpacity: SCRIM_OPACITY, rx: 28 })}
      />
      {title.map((text, i) => (
        <text key={i} x={MARGIN} y={MARGIN + (0.8 + 1.15 * i) * TITLE} fontSize={TITLE} fontWeight={700}>
          {text}
        </text>
      ))}
      {line.map((text, i) => (
        <text key={i} x={MARGIN} y={head + (0.75 + 1.35 * i) * LINE} fontSize={LINE} fill={colours.quiet}>
          {text}
        </text>
      ))}
      <g transform={`translate(${MARGIN} ${top})`}>
        {inside(card, strip, { width: room, height: left, stacked: size === "tall", theme, system })}
      </g>
      <text x={MARGIN} y={height - MARGIN / 2} fontSize={FOOT} fill={colours.quiet}>
        {"± holds the truth 95 times in 100"}
      </text>
    </>,
  );
}
