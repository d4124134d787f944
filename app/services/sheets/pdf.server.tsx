import {
  Document,
  Font,
  Image,
  Link,
  Page,
  Path,
  renderToBuffer,
  StyleSheet,
  Svg,
  Text,
  View,
} from "@react-pdf/renderer";
import { codeOf } from "#app/ui/sheet/code";
import { readMarkdown, type Run } from "#app/ui/sheet/markdown";
import { renderUnits, writeUncertain, type Decimal, type System } from "#core/base";
import type { Paper, SheetBlock, SheetDocument, SheetFigure, SheetLine, SheetTable } from "#core/telling";
import type { Database } from "#db/client";
import { drawnFor } from "../reader.server";
import { COLOURS } from "../drawing/colours";
import { fontPaths } from "../drawing/fonts.server";
import { pngOf } from "../drawing/png.server";
import type { Drawings, Photographs } from "./gathered";

/** What is put on paper. */
export interface PdfAsk {
  readonly document: SheetDocument;
  readonly drawings: Drawings;
  /** Photographs by their ids. */
  readonly photographs: Photographs;
  readonly system: System;
  readonly paper: Paper;
  readonly decimal: Decimal;
  /** What stands at the foot of every page. */
  readonly foot: string;
}

const { ink, quiet, rule, spruce, ochre, rust } = COLOURS.light;
const FAMILY = "Latin";
const FURTHER = "Further Latin";
/** Pixels to a point of paper: sharp when it is printed. */
const SHARPNESS = 3.2;
/** Between the margins, points. */
const WIDTH = { A4: 499, Letter: 516 } as const;
/** Rows of one table that paper takes: more are nobody's reading, and belong in the table's own file. */
const MOST_ROWS = 400;
/** Least and most letters that a column of a table asks for. */
const NARROWEST = 6;
const WIDEST = 34;

let registered = false;

/** The shipped letters, for paper. Throws `CannotDraw` where they are missing. */
function registerFonts(): void {
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

const styles = StyleSheet.create({
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

type Say = (text: string) => string;

function Figures({
  figures,
  system,
  say,
}: {
  readonly figures: readonly SheetFigure[];
  readonly system: System;
  readonly say: Say;
}) {
  return (
    <View style={styles.figures}>
      {figures.map(({ key, value, dimension, says, pencil }, i) => {
        const { value: text, error, unit } = writeUncertain(value, dimension, system);
        return (
          <View key={key} style={styles.figure}>
            <Text style={pencil ? styles.pencil : {}}>
              <Text style={i === 0 ? styles.large : styles.medium}>{text}</Text>
              <Text>{` ± ${error} ${unit}`}</Text>
            </Text>
            <Text style={styles.says}>{say(says)}</Text>
          </View>
        );
      })}
    </View>
  );
}

const Lines = ({ lines, say }: { readonly lines: readonly SheetLine[]; readonly say: Say }) =>
  lines.map(({ label, text, tone }, i) => (
    <View key={i} style={styles.row} wrap={false}>
      <Text style={styles.label}>{say(label)}</Text>
      <Text style={{ flex: 1, ...(tone === "bad" && { color: rust }) }}>{say(text)}</Text>
    </View>
  ));

function Table({
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

const OwnWords = ({ markdown }: { readonly markdown: string }) =>
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

function Address({ address }: { readonly address: string }) {
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

interface BlockProps {
  readonly block: SheetBlock;
  readonly ask: PdfAsk;
  readonly say: Say;
  /** Heading of its section. */
  readonly under: string | null;
}

function Block({ block, ask, say, under }: BlockProps) {
  switch (block.kind) {
    case "figures":
      return <Figures figures={block.figures} system={ask.system} say={say} />;
    case "text":
      return <Text>{say(block.text)}</Text>;
    case "list":
      return block.items.map((item, i) => (
        <View key={i} style={styles.item}>
          <Text style={{ width: 10 }}>·</Text>
          <Text style={{ flex: 1 }}>{say(item)}</Text>
        </View>
      ));
    case "lines":
      return <Lines lines={block.lines} say={say} />;
    case "table":
      return <Table {...block} say={say} under={under} />;
    case "drawing": {
      const svg = ask.drawings[block.name]?.[ask.system];
      const width = WIDTH[ask.paper];
      return svg ? <Image src={Buffer.from(pngOf(svg, SHARPNESS * width))} style={{ width }} /> : null;
    }
    case "words":
      return <OwnWords markdown={block.markdown} />;
    case "photographs":
      return (
        <View style={styles.photographs}>
          {block.photographs.map(({ id, caption }) => {
            const photograph = ask.photographs[id];
            return photograph ? (
              <View key={id} style={styles.photograph} wrap={false}>
                <Image src={Buffer.from(photograph.bytes)} />
                {caption ? <Text style={styles.says}>{caption}</Text> : null}
              </View>
            ) : null;
          })}
        </View>
      );
    case "address":
      return <Address address={block.address} />;
  }
}

/** A page of a test, a comparison or a pack on paper, as PDF. Throws `CannotDraw` where the letters are missing. */
export const pdfOf = (_db: Database, ask: PdfAsk): Promise<Uint8Array> =>
  drawnFor(ask.decimal, () => {
    registerFonts();
    const { title, line, sections } = ask.document;
    const say = (text: string) => renderUnits(text, ask.system);
    return renderToBuffer(
      <Document title={title} creator="Barometron" producer="Barometron">
        <Page size={ask.paper === "A4" ? "A4" : "LETTER"} style={styles.page}>
          <View style={styles.body}>
            <Text style={styles.title}>{title}</Text>
            <Text style={styles.line}>{say(line)}</Text>
            {sections.map(({ key, heading, blocks }) => (
              <View key={key} style={styles.section}>
                {heading ? (
                  <Text style={styles.heading} minPresenceAhead={30}>
                    {heading}
                  </Text>
                ) : null}
                {blocks.map((block, i) => (
                  <Block key={i} block={block} ask={ask} say={say} under={heading} />
                ))}
              </View>
            ))}
          </View>
          <Text
            style={styles.foot}
            fixed
            render={({ pageNumber, totalPages }) => `${ask.foot}  ·  page ${pageNumber} of ${totalPages}`}
          />
        </Page>
      </Document>,
    );
  });
