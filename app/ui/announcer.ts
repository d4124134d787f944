/** What is told aloud: short sentences, one at a time, by one region that is always there. */

let said = { text: "", count: 0 };
const listeners = new Set<() => void>();

/** Tells a person who listens to the page. The same sentence twice is told twice. */
export function announce(text: string): void {
  if (!text) return;
  said = { text, count: said.count + 1 };
  for (const listener of listeners) listener();
}

export const saidNow = (): { readonly text: string; readonly count: number } => said;

export function onSaid(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
