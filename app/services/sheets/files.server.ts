import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { renderToStaticMarkup } from "react-dom/server";
import { createElement } from "react";
import type { Decimal, System } from "#core/base";
import { sheetMarkdown, type Paper, type SheetDocument } from "#core/telling";
import { SheetView } from "#ui/sheet/sheetView";
import sheetCss from "../../ui/sheet/sheet.css?raw";
import type { Database } from "#db/client";
import { findPhotograph } from "#db/photographs";
import { compute } from "../compute/pool.server";
import { bytesBody, drawnFile, fileHeaders, refusedFile } from "../files.server";
import { fileName } from "#core/io";
import { drawnFor } from "../reader.server";
import type { Drawings, Photographs } from "./gathered";

/** A page that is taken away as a file. */
export interface TakenPage {
  readonly document: SheetDocument;
  readonly drawings: Drawings;
  readonly bundle: unknown;
  readonly system: System;
  readonly paper: Paper;
  readonly decimal: Decimal;
  readonly foot: string;
}

const WEIGHTS = [
  ["400", "normal"],
  ["700", "normal"],
  ["400", "italic"],
] as const;

/** The shipped letters inside a style sheet, so that a page by itself needs nothing beside it. */
async function fontCss(): Promise<string> {
  const folder = process.env["BAROMETRON_FONTS"] ?? join(process.cwd(), "build", "fonts");
  const faces = await Promise.all(
    WEIGHTS.map(async ([weight, style]) => {
      const bytes = await readFile(join(folder, `latin-${weight}-${style}.woff2`));
      return `@font-face{font-family:"Atkinson Hyperlegible Next";font-weight:${weight};font-style:${style};src:url(data:font/woff2;base64,${bytes.toString("base64")}) format("woff2")}`;
    }),
  );
  return faces.join("\n");
}

const escaped = (text: string) => text.replaceAll("&", "&amp;").replaceAll("<", "&lt;");

/** The photographs of a page, whole. */
async function photographsOf(db: Database, { sections }: SheetDocument): Promise<Photographs> {
  const ids = sections.flatMap(({ blocks }) =>
    blocks.flatMap((block) => (block.kind === "photographs" ? block.photographs.map(({ id }) => id) : [])),
  );
  const found = await Promise.all(ids.map(async (id) => [id, await findPhotograph(db, id)] as const));
  return Object.fromEntries(found.flatMap(([id, whole]) => (whole ? [[id, whole]] : [])));
}

/** A page as one HTML file: no script, its letters and drawings inside, to be put on any web space. */
async function htmlOf(page: TakenPage, photographs: Photographs): Promise<string> {
  const { document, drawings, system, decimal, foot } = page;
  const source = (id: string) => {
    const whole = photographs[id];
    return whole ? `data:${whole.type};base64,${Buffer.from(whole.bytes).toString("base64")}` : "";
  };
  const body = drawnFor(decimal, () =>
    renderToStaticMarkup(createElement(SheetView, { document, drawings, system, foot, source })),
  );
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<title>${escaped(document.title)}</title>
<style>
${await fontCss()}
body{margin:0;background:#f6f3ea;font-family:"Atkinson Hyperlegible Next",sans-serif;font-variant-numeric:tabular-nums}
.paper{box-sizing:border-box;max-width:50rem;margin:0 auto;padding:2rem clamp(1rem,4vw,3rem)}
@media print{body{background:none}.paper{padding:0;max-width:none}}
${sheetCss}</style>
</head>
<body>
<main>${body}</main>
</body>
</html>
`;
}

/** A page as one HTML file with its photographs. */
export const pageHtml = async (db: Database, page: TakenPage): Promise<string> =>
  htmlOf(page, await photographsOf(db, page.document));

const REFUSAL = "A sheet is had as pdf, html, md or json.";

/** A page as a file of some format, ready to be sent. */
export async function fileOf(db: Database, page: TakenPage, format: string): Promise<Response> {
  const { document, drawings, system, decimal, paper, foot, bundle } = page;
  const name = (ending: string) => fileName(document.title, ending);
  if (format === "pdf")
    return drawnFile(async () => {
      const photographs = await photographsOf(db, document);
      const ask = { document, drawings, photographs, system, decimal, paper, foot };
      const bytes = await compute(db, "sheetPdf", ask);
      return new Response(bytesBody(bytes), { headers: fileHeaders("application/pdf", name("pdf")) });
    });
  if (format === "html")
    return new Response(await pageHtml(db, page), {
      headers: fileHeaders("text/html", name("html")),
    });
  if (format === "md")
    return new Response(
      drawnFor(decimal, () => sheetMarkdown(document, system)),
      {
        headers: fileHeaders("text/markdown", name("md")),
      },
    );
  if (format === "json")
    return bundle === null
      ? refusedFile("This page is of no single test: take the bundles of its tests from their strips.", 404)
      : new Response(JSON.stringify(bundle), { headers: fileHeaders("application/json", name("json")) });
  return refusedFile(REFUSAL, 404);
}
