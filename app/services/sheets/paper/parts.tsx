import { Link, Path, Svg, Text, View } from "@react-pdf/renderer";
import { codeOf } from "#app/ui/sheet/code";
import { readMarkdown, type Run } from "#app/ui/sheet/markdown";
import { writeUncertain } from "#core/base";
import type { SheetLine, SheetTable } from "#core/telling";
import type { FiguresProps } from "#ui/sheet/sheetView";
import { PAPER_COLOURS, styles } from "./styles.server";

const { ink, quiet, spruce, rust } = PAPER_COLOURS;
/** Rows of one table that paper takes: more are nobody's reading, and belong in the table's own file. */
const MOST_ROWS = 400;
/** Least and most letters that a column of a table asks for. */
const NARROWEST = 6;
const WIDEST = 34;

/** Writes the quantities of a text out. */
export type Say = (text: string) => string;

/** Figures side by side, the first in large; what was reckoned is slanted and in ochre. */
export function Figures({ figures, system, say }: FiguresProps) {
  return (
    <View style={styles.figures}>
      {figures.map(({ key, value, dimension, says, pencil, signed }, i) => {
        const { value: text, spread, unit } = writeUncertain(value, dimension, system, signed);
        return (
          <View key={key} style={styles.figure}>
            <Text style={pencil ? styles.pencil : {}}>
              <Text style={i === 0 ? styles.large : styles.medium}>{text}</Text>
              <Text>{` ${spread} ${unit}`}</Text>
            </Text>
            <Text style={styles.says}>{say(says)}</Text>
          </View>
        );
      })}
    </View>
  );
}

export const Lines = ({ lines, say }: { readonly lines: readonly SheetLine[]; readonly say: Say }) =>
  lines.map(({ label, text, tone }, i) => (
    <View key={i} style={styles.row} wrap={false}>
      <Text style={styles.label}>{say(label)}</Text>
      <Text style={{ flex: 1, ...(tone === "bad" && { color: rust }) }}>{say(text)}</Text>
    </View>
  ));

export function Table({
  caption,
  headings,
  rows,
  say,
  under,
}: SheetTable & { readonly say: Say; readonly under: string | null }) {
  const shown = rows.slice(0, MOST_ROWS).map((row) => row.map(say));
  // Columns are as wide as what stands in them asks for.
  const flexes = headings.map((heading, i) =>
    Math.min(WIDEST, Math.max(NARROWEST, heading.length, ...shown.map((row) => row[i]?.length ?? 0))),
  );
  const cells = (row: readonly string[], head: boolean) =>
    row.map((cell, i) => (
      <Text
        key={i}
        style={{
          flex: flexes[i] ?? NARROWEST,
          paddingRight: 6,
          ...(head && { color: quiet }),
        }}
      >
        {cell}
      </Text>
    ));
  return (
    <View>
      {caption === under ? null : <Text style={styles.caption}>{caption}</Text>}
      <View style={styles.row}>{cells(headings, true)}</View>
      {shown.map((row, i) => (
        <View key={i} style={styles.row} wrap={false}>
          {cells(row, false)}
        </View>
      ))}
      {rows.length > MOST_ROWS ? (
        <Text style={styles.says}>{`${rows.length - MOST_ROWS} more rows stand in the table's file.`}</Text>
      ) : null}
    </View>
  );
}

const Runs = ({ runs }: { readonly runs: readonly Run[] }) =>
  runs.map(({ text, strong, slanted, to }, i) => {
    const style = {
      ...(strong && { fontWeight: 700 as const }),
      ...(slanted && { fontStyle: "italic" as const }),
    };
    return to ? (
      <Link key={i} src={to} style={{ ...style, color: spruce }}>
        {text}
      </Link>
    ) : (
      <Text key={i} style={style}>
        {text}
      </Text>
    );
  });

export const OwnWords = ({ markdown }: { readonly markdown: string }) =>
  readMarkdown(markdown).map(({ as, runs }, i) => (
    <Text
      key={i}
      style={
        as === "heading" ? styles.heading : { marginBottom: 4, ...(as !== "paragraph" && { marginLeft: 10 }) }
      }
    >
      {as === "item" ? "· " : ""}
      <Runs runs={runs} />
    </Text>
  ));

const CODE = 54;

export function Address({ address }: { readonly address: string }) {
  const { side, dark } = codeOf(address);
  return (
    <View
      style={{ flexDirection: "row", justifyContent: "space-between", alignItems: "flex-end" }}
      wrap={false}
    >
      <Text style={{ ...styles.says, maxWidth: 340 }}>
        {"Figures, log and method: "}
        <Link src={address} style={{ color: spruce }}>
          {address}
        </Link>
      </Text>
      <Svg width={CODE} height={CODE} viewBox={`0 0 ${side} ${side}`}>
        <Path d={dark.map(([x, y]) => `M${x} ${y}h1v1h-1z`).join("")} fill={ink} />
      </Svg>
    </View>
  );
}
