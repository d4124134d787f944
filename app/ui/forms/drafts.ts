/**
 * What was typed into a form and is not saved yet, kept in this browser by the form's page: a page closed by mistake, a
 * battery that ended or a network that never came lose nothing.
 */

/** Texts of a form in their order, several of one name as they come. */
export type Entries = readonly (readonly [name: string, text: string])[];

export interface Draft {
  readonly entries: Entries;
  /** Version of the record it was typed upon; null for something new. */
  readonly version: number | null;
  /** Saves of the form, by their ids, whose changes are its own. */
  readonly own?: readonly string[];
  /** How often it was sent again after the page had been closed. */
  readonly tries: number;
}

const keyOf = (path: string) => `barometron draft ${path}`;

/** The texts of a form; files are left out. */
export const entriesOf = (form: FormData): Entries =>
  [...form.entries()].flatMap(([name, value]) => (typeof value === "string" ? [[name, value] as const] : []));

/** Texts as a form again. */
export function formOf(entries: Entries): FormData {
  const form = new FormData();
  for (const [name, text] of entries) form.append(name, text);
  return form;
}

const isDraft = (value: unknown): value is Draft =>
  typeof value === "object" && value !== null && "entries" in value && Array.isArray(value.entries);

/** The draft of a page; null without one, or where the browser keeps nothing. */
export function draftOf(path: string, store: Storage = localStorage): Draft | null {
  try {
    const text = store.getItem(keyOf(path));
    const value: unknown = text === null ? null : JSON.parse(text);
    return isDraft(value) ? value : null;
  } catch {
    return null;
  }
}

/** Keeps a draft, or takes it away. A browser that keeps nothing loses only this second net. */
export function keepDraft(path: string, draft: Draft | null, store: Storage = localStorage): void {
  try {
    if (draft) store.setItem(keyOf(path), JSON.stringify(draft));
    else store.removeItem(keyOf(path));
  } catch {
    // Refused or full.
  }
}

type Control = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

const isControl = (element: Element): element is Control =>
  element instanceof HTMLInputElement ||
  element instanceof HTMLSelectElement ||
  element instanceof HTMLTextAreaElement;

/** Sets a control as a person would, so that whoever listens hears of it. */
function type(control: Control, text: string): void {
  if (control.value === text) return;
  const proto = Object.getPrototypeOf(control) as object;
  Object.getOwnPropertyDescriptor(proto, "value")?.set?.call(control, text);
  control.dispatchEvent(new Event("input", { bubbles: true }));
  control.dispatchEvent(new Event("change", { bubbles: true }));
}

/** Puts a draft's texts back into a form's controls. Hidden ones and files stay as they are. */
export function fillForm(form: HTMLFormElement, entries: Entries): void {
  const left = new Map<string, string[]>();
  for (const [name, text] of entries) left.set(name, [...(left.get(name) ?? []), text]);
  for (const control of [...form.elements].filter(isControl)) {
    const { name } = control;
    if (!name || control.type === "hidden" || control.type === "file") continue;
    if (control instanceof HTMLInputElement && (control.type === "checkbox" || control.type === "radio")) {
      const wanted = left.get(name)?.includes(control.value) ?? false;
      if (control.checked !== wanted) control.click();
      continue;
    }
    const text = left.get(name)?.shift();
    if (text !== undefined) type(control, text);
  }
}
