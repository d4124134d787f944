import { href, Form } from "react-router";

interface ActProps {
  readonly kind: string;
  readonly id: string;
  readonly intent: "archive" | "restore" | "duplicate";
  /** Where to go afterwards. */
  readonly to?: string;
  /** What it is done to, for screen readers. */
  readonly name: string;
}

const WORDS = { archive: "Archive", restore: "Bring back", duplicate: "Duplicate" } as const;

/** A quiet button that archives, brings back or duplicates something kept. */
export function Act({ kind, id, intent, to, name }: ActProps) {
  return (
    <Form method="post" action={href("/act")} className="inline">
      <input type="hidden" name="kind" value={kind} />
      <input type="hidden" name="id" value={id} />
      {to ? <input type="hidden" name="to" value={to} /> : null}
      <button
        type="submit"
        name="intent"
        value={intent}
        className="button button-plain"
        aria-label={`${WORDS[intent]} ${name}`}
      >
        {WORDS[intent]}
      </button>
    </Form>
  );
}
