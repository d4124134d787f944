import { renderUnits, writeUncertain, type System } from "#core/base";
import type {
  SheetBlock,
  SheetDocument,
  SheetFigure,
  SheetLine,
  SheetPhotograph,
  SheetTable,
} from "#core/telling";
import { href } from "react-router";
import { codeOf } from "./code";
import { forReader } from "./forReader";
import { readMarkdown, type Run } from "./markdown";

/** Drawings of a page by name, in each system of units, as SVG. */
type Drawings = Readonly<Record<string, Readonly<Record<System, string>>>>;

interface SheetViewProps {
  readonly document: SheetDocument;
  readonly drawings: Drawings;
  readonly system: System;
  /** What stands at its foot: edition, day, conditions. */
  readonly foot?: string;
  /** Where a photograph is had, by its id; on the desk unless said otherwise. */
  readonly source?: (id: string) => string;
}

const onDesk = (photographId: string) => href("/sheet/photographs/:photographId", { photographId });

type Say = (text: string) => string;

/** Figures with what their sentences and units are written out by. */
export interface FiguresProps {
  readonly figures: readonly SheetFigure[];
  readonly system: System;
  readonly say: Say;
}

function Figures({ figures, system, say }: FiguresProps) {
  return (
    <div className="paper-figures">
      {figures.map(({ key, value, dimension, says, pencil, signed }, i) => {
        const { value: text, spread, unit } = writeUncertain(value, dimension, system, signed);
        return (
          <p key={key}>
            <span className={pencil ? "paper-pencil" : ""}>
              <b className={i === 0 ? "paper-large" : "paper-medium"}>{text}</b> {spread} {unit}
              {pencil ? <span className="paper-told"> (assumed or worked out)</span> : null}
            </span>
            <span className="paper-quiet">{say(says)}</span>
          </p>
        );
      })}
    </div>
  );
}

const Lines = ({ lines, say }: { readonly lines: readonly SheetLine[]; readonly say: Say }) => (
  <dl className="paper-lines">
    {lines.map(({ label, text, tone }, i) => (
      <div key={i}>
        <dt>{say(label)}</dt>
        <dd className={tone === "bad" ? "paper-bad" : ""}>{say(text)}</dd>
      </div>
    ))}
  </dl>
);

interface TableProps extends SheetTable {
  readonly say: Say;
  /** Heading of its section: a caption that says the same is only read out. */
  readonly under: string | null;
}

const Table = ({ caption, headings, rows, say, under }: TableProps) => (
  <table>
    <caption className={caption === under ? "paper-told" : ""}>{caption}</caption>
    <thead>
      <tr>
        {headings.map((heading, i) => (
          <th key={i} scope="col">
            {heading}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {rows.map((row, i) => (
        <tr key={i}>
          {row.map((cell, column) =>
            column === 0 ? (
              <th key={column} scope="row">
                {say(cell)}
              </th>
            ) : (
              <td key={column}>{say(cell)}</td>
            ),
          )}
        </tr>
      ))}
    </tbody>
  </table>
);

function OneRun({ text, strong, slanted, to }: Run) {
  const inner = strong ? <strong>{text}</strong> : slanted ? <em>{text}</em> : text;
  return to ? (
    <a href={to} rel="noreferrer">
      {inner}
    </a>
  ) : (
    inner
  );
}

function OwnWords({ markdown }: { readonly markdown: string }) {
  return readMarkdown(markdown).map(({ as, runs }, i) => {
    const inner = runs.map((run, at) => <OneRun key={at} {...run} />);
    if (as === "heading") return <h3 key={i}>{inner}</h3>;
    return (
      <p key={i} className={as === "paragraph" ? "" : `paper-${as}`}>
        {inner}
      </p>
    );
  });
}

function Address({ address }: { readonly address: string }) {
  const { side, dark } = codeOf(address);
  return (
    <div className="paper-address">
      <p className="paper-quiet">
        Figures, log and method: <a href={address}>{address}</a>
      </p>
      <svg
        width="88"
        height="88"
        viewBox={`-2 -2 ${side + 4} ${side + 4}`}
        role="img"
        aria-label={`Code of ${address}`}
      >
        <path d={dark.map(([x, y]) => `M${x} ${y}h1v1h-1z`).join("")} />
      </svg>
    </div>
  );
}

interface PhotographsProps {
  readonly photographs: readonly SheetPhotograph[];
  readonly source: (id: string) => string;
}

const Photographs = ({ photographs, source }: PhotographsProps) => (
  <div className="paper-photographs">
    {photographs.map(({ id, caption, widthPx, heightPx }) => (
      <figure key={id}>
        <img src={source(id)} alt={caption || "Photograph"} width={widthPx} height={heightPx} />
        {caption ? <figcaption className="paper-quiet">{caption}</figcaption> : null}
      </figure>
    ))}
  </div>
);

interface BlockProps extends Pick<SheetViewProps, "drawings" | "system"> {
  readonly source: (id: string) => string;
  readonly block: SheetBlock;
  readonly say: Say;
  readonly under: string | null;
}

function Block({ block, drawings, system, say, under, source }: BlockProps) {
  switch (block.kind) {
    case "figures":
      return <Figures figures={block.figures} system={system} say={say} />;
    case "text":
      return <p>{say(block.text)}</p>;
    case "list":
      return (
        <ul>
          {block.items.map((item, i) => (
            <li key={i}>{say(item)}</li>
          ))}
        </ul>
      );
    case "lines":
      return <Lines lines={block.lines} say={say} />;
    case "table":
      return <Table {...block} say={say} under={under} />;
    case "drawing": {
      const svg = drawings[block.name]?.[system];
      // Drawn by ourselves, from figures alone: there is nothing of others in it.
      return svg ? (
        <div
          className="paper-drawing"
          role="img"
          aria-label={block.shows}
          dangerouslySetInnerHTML={{ __html: forReader(svg) }}
        />
      ) : null;
    }
    case "words":
      return <OwnWords markdown={block.markdown} />;
    case "photographs":
      return <Photographs photographs={block.photographs} source={source} />;
    case "address":
      return <Address address={block.address} />;
  }
}

/** A page as it will be printed. */
export function SheetView({ document, drawings, system, foot, source = onDesk }: SheetViewProps) {
  const say = (text: string) => renderUnits(text, system);
  return (
    <article className="paper" aria-label={document.title}>
      <h2 className="paper-title">{document.title}</h2>
      <p className="paper-quiet">{say(document.line)}</p>
      {document.sections.map(({ key, heading, blocks }) => (
        <section key={key} data-section={key}>
          {heading ? <h3>{heading}</h3> : null}
          {blocks.map((block, i) => (
            <Block
              key={i}
              block={block}
              drawings={drawings}
              system={system}
              say={say}
              under={heading}
              source={source}
            />
          ))}
        </section>
      ))}
      {foot ? <footer className="paper-quiet">{foot}</footer> : null}
    </article>
  );
}
