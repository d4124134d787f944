import { useState } from "react";
import { announce } from "#app/ui/announcer";

interface FilesProps {
  /** Address of the page in a format. */
  readonly path: (format: string) => string;
  readonly hasBundle: boolean;
}

/** A page as files that are taken away. */
export function Files({ path, hasBundle }: FilesProps) {
  return (
    <section aria-label="Take with you">
      <h2 className="mb-2">Take with you</h2>
      <div className="grid grid-cols-2 gap-2">
        <a href={path("pdf")} className="button justify-center" download>
          PDF
        </a>
        <a href={path("html")} className="button justify-center" download>
          One HTML file
        </a>
        <a href={path("md")} className="button justify-center" download>
          Text, Markdown
        </a>
        <CopyText address={path("md")} />
        {hasBundle ? (
          <a href={path("json")} className="button justify-center" download>
            The data, a bundle
          </a>
        ) : null}
      </div>
    </section>
  );
}

/** The page's text for an article, on the clipboard. */
function CopyText({ address }: { readonly address: string }) {
  const [said, setSaid] = useState("Copy the text");
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(await (await fetch(address)).text());
      announce("Copied.");
      setSaid("Copied");
    } catch {
      setSaid("Not copied: take the file");
    }
  };
  return (
    <button type="button" className="button justify-center" onClick={() => void copy()}>
      {said}
    </button>
  );
}
