import { useState } from "react";
import { href, Link, useLocation } from "react-router";
import { announce } from "#app/ui/announcer";
import { writeCsv } from "#core/io";
import { shownRows, tabbedText } from "#core/telling";
import { cardLinks } from "./cardLinks";
import { pageCharts, pageTables, type PageChart, type PageTable } from "./pageParts";

/** Times as sharp as on screen. */
const SHARPNESS = 2;

const fileName = (name: string, ending: string) =>
  `${name.replace(/[^\p{L}\p{N}]+/gu, "-").replace(/^-+|-+$/g, "") || "table"}.${ending}`;

function save(content: BlobPart, type: string, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([content], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

async function savePng({ name, read }: PageChart): Promise<void> {
  const { svg, width } = read();
  const answer = await fetch(`${href("/sheet/picture")}?width=${SHARPNESS * width}`, {
    method: "POST",
    body: svg,
    headers: { "content-type": "image/svg+xml" },
  });
  if (!answer.ok) throw new Error(await answer.text());
  save(await answer.blob(), "image/png", fileName(name, "png"));
}

interface ChoiceProps {
  readonly name: string;
  readonly what: string;
  readonly onTake: () => void | Promise<void>;
}

/** One way to take something away; what goes wrong is said. */
function Choice({ name, what, onTake }: ChoiceProps) {
  const [failed, setFailed] = useState<string | null>(null);
  const take = () =>
    void Promise.resolve()
      .then(onTake)
      .then(
        () => setFailed(null),
        () => setFailed("That did not work: try again when there is a network."),
      );
  return (
    <>
      <button type="button" className="button button-plain" aria-label={`${what} of ${name}`} onClick={take}>
        {what}
      </button>
      {failed ? (
        <span role="alert" className="text-sm text-rust">
          {failed}
        </span>
      ) : null}
    </>
  );
}

function TableChoices({ name, read }: PageTable) {
  const rows = () => shownRows(read());
  return (
    <>
      <Choice
        name={name}
        what="CSV"
        onTake={() => save(writeCsv(rows()), "text/csv;charset=utf-8", fileName(name, "csv"))}
      />
      <Choice
        name={name}
        what="JSON"
        onTake={() => save(JSON.stringify(rows(), null, 1), "application/json", fileName(name, "json"))}
      />
      <Choice
        name={name}
        what="Copy"
        onTake={async () => {
          await navigator.clipboard.writeText(tabbedText(rows()));
          announce(`Copied: ${name}`);
        }}
      />
    </>
  );
}

/** The tables and charts of the page as they are now, each with the ways it can be taken away. */
export default function Parts() {
  const [tables] = useState(pageTables);
  const [charts] = useState(pageCharts);
  const { pathname, search } = useLocation();
  const cards = cardLinks(pathname, new URLSearchParams(search));
  if (tables.length + charts.length === 0)
    return <p className="mt-2 text-quiet">There is nothing on this page yet.</p>;
  return (
    <ul aria-label="Files" className="mt-2 grid max-w-2xl gap-1">
      {tables.map((table, i) => (
        <li key={`table/${i}`} className="flex flex-wrap items-center gap-x-2 border-b border-rule">
          <span className="mr-auto min-w-0">{table.name}</span>
          <TableChoices {...table} />
        </li>
      ))}
      {charts.map((chart, i) => (
        <li key={`chart/${i}`} className="flex flex-wrap items-center gap-x-2 border-b border-rule">
          <span className="mr-auto min-w-0">{chart.name}</span>
          <Choice
            name={chart.name}
            what="SVG"
            onTake={() => save(chart.read().svg, "image/svg+xml", fileName(chart.name, "svg"))}
          />
          <Choice name={chart.name} what="PNG" onTake={() => savePng(chart)} />
        </li>
      ))}
      {cards.length ? (
        <li className="flex flex-wrap items-center gap-x-2 py-1">
          <span className="mr-auto">Cards for a film</span>
          {cards.map(({ name, to }) => (
            <Link key={to} to={to} className="button button-plain">
              {name}
            </Link>
          ))}
        </li>
      ) : null}
    </ul>
  );
}
