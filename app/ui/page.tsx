import type { ReactNode } from "react";
import { WhatIs, type OwnWord } from "#ui/whatIs";

interface PageProps {
  readonly title: string;
  /** One sentence made from the data: what this is, for which bike and pack. */
  readonly line?: ReactNode;
  /** The idea of its own that the page shows, explained on demand. */
  readonly what?: OwnWord;
  /** What keeps the record of the page tidy. */
  readonly acts?: ReactNode;
  /** The one next step. */
  readonly next?: ReactNode;
  readonly children: ReactNode;
}

/** A page: its top line with the one next step, then its content. */
export function Page({ title, line, what, acts, next, children }: PageProps) {
  return (
    <>
      <title>{`${title} - Barometron`}</title>
      <header className="flex flex-wrap items-start justify-between gap-3 border-b border-rule px-4 py-4 md:px-6">
        <div className="min-w-0 flex-1 basis-64">
          <h1 tabIndex={-1}>{title}</h1>
          {line ? <p className="mt-0.5 text-sm text-quiet">{line}</p> : null}
          {what ? <WhatIs word={what} /> : null}
          {acts}
        </div>
        {next}
      </header>
      {children}
    </>
  );
}

/** What an empty list says: what belongs there, and the first step. */
export function Empty({ children, step }: { readonly children: ReactNode; readonly step: ReactNode }) {
  return (
    <div className="sheet max-w-xl p-6">
      <p className="mb-4">{children}</p>
      {step}
    </div>
  );
}

/** Sentences about what went wrong, in rust, announced when they appear. */
export function Problems({
  sentences,
  title,
}: {
  readonly sentences: readonly string[];
  readonly title?: string;
}) {
  if (sentences.length === 0) return null;
  return (
    <div role="alert" className="rounded-sheet border-l-4 border-rust bg-sheet px-4 py-3">
      {title ? <p className="font-bold text-rust">{title}</p> : null}
      <ul>
        {sentences.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
    </div>
  );
}
