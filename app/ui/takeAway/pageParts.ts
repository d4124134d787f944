import type { ShownTable } from "#core/telling";

/** Narrower drawings are signs beside words, no charts. */
const NARROWEST_CHART = 240;

const main = () => document.querySelector("main#page");

/** What a cell shows: without what is only read out or pressed, and a field by what stands in it. */
function cellText(cell: Element): string {
  const copy = cell.cloneNode(true) as Element;
  const fields = [...cell.querySelectorAll<HTMLInputElement | HTMLSelectElement>("input, select, textarea")];
  copy.querySelectorAll("input, select, textarea").forEach((field, i) => {
    const real = fields[i];
    const text =
      real instanceof HTMLSelectElement ? (real.selectedOptions[0]?.textContent ?? "") : (real?.value ?? "");
    field.replaceWith(document.createTextNode(text));
  });
  for (const silent of copy.querySelectorAll(".sr-only, button, svg, [hidden]")) silent.remove();
  return (copy.textContent ?? "").replace(/\s+/g, " ").trim();
}

/** A table of the page with its name. */
export interface PageTable {
  readonly name: string;
  readonly read: () => ShownTable;
}

function readTable(table: HTMLTableElement): ShownTable {
  const [head] = [...(table.tHead?.rows ?? [])].slice(-1);
  const body = [...table.tBodies].flatMap(({ rows }) => [...rows]);
  const widest = Math.max(0, ...body.map(({ cells }) => cells.length));
  const headings = head ? [...head.cells].map(cellText) : [];
  return {
    headings: Array.from({ length: Math.max(widest, headings.length) }, (_, i) => headings[i] ?? ""),
    rows: body.map(({ cells }) => [...cells].map(cellText)).filter((row) => row.some((text) => text !== "")),
  };
}

/** Every table of the page, each by its caption. */
export function pageTables(): readonly PageTable[] {
  return [...(main()?.querySelectorAll("table") ?? [])].map((table) => ({
    name: table.caption?.textContent?.trim() || "Table",
    read: () => readTable(table),
  }));
}

/** A chart of the page with its name. */
export interface PageChart {
  readonly name: string;
  readonly read: () => { readonly svg: string; readonly width: number };
}

/** What a chart is called: by itself, by what it stands in, or by the heading before it. */
function chartName(svg: SVGElement): string {
  const labelled = svg.closest("[aria-label]")?.getAttribute("aria-label");
  if (labelled) return labelled.length > 60 ? `${labelled.slice(0, 57)}…` : labelled;
  const heading = svg.closest("section, article")?.querySelector("h2, h3")?.textContent;
  return heading?.trim() || document.querySelector("main h1")?.textContent?.trim() || "Chart";
}

/** What style sheets say of a part of a drawing: written into it, since they do not come along. */
const STYLED = [
  ...["fill", "fill-opacity", "stroke", "stroke-width", "stroke-dasharray", "stroke-opacity", "opacity"],
  ...["font-size", "font-weight", "font-style", "text-anchor"],
];

function standAlone(svg: SVGElement): { svg: string; width: number } {
  const { width, height } = svg.getBoundingClientRect();
  const copy = svg.cloneNode(true) as SVGElement;
  const [from, to] = [svg.querySelectorAll("*"), copy.querySelectorAll("*")];
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    for (const name of STYLED) {
      const value = style.getPropertyValue(name);
      // A fill by its pattern's name stays as it is written: the pattern comes along.
      if (value && !/url\(/.test(element.getAttribute(name) ?? "")) to[i]?.setAttribute(name, value);
    }
    to[i]?.removeAttribute("class");
    to[i]?.removeAttribute("style");
  });
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", String(Math.round(width)));
  copy.setAttribute("height", String(Math.round(height)));
  copy.setAttribute("font-family", "Atkinson Hyperlegible Next, sans-serif");
  copy.setAttribute("font-size", getComputedStyle(svg).fontSize);
  copy.setAttribute("fill", getComputedStyle(svg).color);
  copy.removeAttribute("class");
  copy.removeAttribute("style");
  const ground = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  ground.setAttribute("width", "100%");
  ground.setAttribute("height", "100%");
  ground.setAttribute(
    "fill",
    getComputedStyle(document.documentElement).getPropertyValue("--color-sheet").trim(),
  );
  copy.prepend(ground);
  return { svg: new XMLSerializer().serializeToString(copy), width: Math.round(width) };
}

/** Every chart of the page that is drawn. */
export function pageCharts(): readonly PageChart[] {
  return [...(main()?.querySelectorAll("svg") ?? [])]
    .filter((svg) => svg.getBoundingClientRect().width >= NARROWEST_CHART)
    .map((svg) => ({ name: chartName(svg), read: () => standAlone(svg) }));
}

/** Whether the page has anything to be taken away. */
export const hasParts = (): boolean => Boolean(main()?.querySelector("table")) || pageCharts().length > 0;
