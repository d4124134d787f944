import { Document, Image, Page, renderToBuffer, Text, View } from "@react-pdf/renderer";
import { forReader } from "#app/ui/sheet/forReader";
import { renderUnits, type Decimal, type System } from "#core/base";
import type { Paper, SheetBlock, SheetDocument } from "#core/telling";
import type { Database } from "#db/client";
import { drawnFor } from "../reader.server";
import { pngOf } from "../drawing/png.server";
import type { Drawings, Photographs } from "./gathered";
import { Address, Figures, Lines, OwnWords, Table, type Say } from "./paper/parts";
import { registerFonts, styles } from "./paper/styles.server";

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

/** Pixels to a point of paper: sharp when it is printed. */
const SHARPNESS = 3.2;
/** Between the margins, points. */
const WIDTH = { A4: 499, Letter: 516 } as const;

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
      return svg ? (
        <Image src={Buffer.from(pngOf(forReader(svg), SHARPNESS * width))} style={{ width }} />
      ) : null;
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

/** Rows and paragraphs that stay on one page with their heading; longer sections go on over the next. */
const MOST_TOGETHER = 8;

/** Whether a section may be parted by the end of a page. */
const isLong = (blocks: readonly SheetBlock[]): boolean =>
  blocks.reduce((sum, block) => {
    if (block.kind === "table") return sum + block.rows.length;
    if (block.kind === "lines") return sum + block.lines.length;
    if (block.kind === "list") return sum + block.items.length;
    return sum + (block.kind === "words" || block.kind === "photographs" ? MOST_TOGETHER + 1 : 1);
  }, 0) > MOST_TOGETHER;

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
              <View key={key} style={styles.section} wrap={isLong(blocks)}>
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
