/** Keys that are letters: for those who want them, and out of the way of those who speak to their computer. */
const KEY = "barometron letter keys";

/** Whether letters act; they do until somebody switched them off in this browser. */
export function lettersAct(): boolean {
  try {
    return localStorage.getItem(KEY) !== "off";
  } catch {
    return true;
  }
}

/** Switches letters on or off in this browser. */
export function setLettersAct(on: boolean): void {
  try {
    if (on) localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, "off");
  } catch {
    // A browser that keeps nothing has them on.
  }
}

/** Inputs that take no letters: on a tick box a letter is a key as anywhere else. */
const NOT_TYPED = /^(checkbox|radio|button|submit|reset|file|range|color|image)$/;

/** Whether something is being typed where a key was pressed. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    /^(TEXTAREA|SELECT)$/.test(target.tagName) ||
    (target instanceof HTMLInputElement && !NOT_TYPED.test(target.type)));

/** Whether a key was pressed in something that lies over the page, and is its own. */
export const isInOverlay = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest("[role='dialog'], [role='menu'], [role='listbox']") !== null;

/** Whether a press is a plain letter or figure that may act. */
export const isLetterPress = (event: KeyboardEvent): boolean =>
  lettersAct() && !isTyping(event.target) && !event.ctrlKey && !event.metaKey && !event.altKey;
