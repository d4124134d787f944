import { useEffect, useRef, type PointerEvent } from "react";

/**
 * Keeps a part of the page as tall as it has been: words that come shorter under what is about to be tapped do not move it.
 * A part that is gone for a while, such as on a turned phone, begins anew with its width.
 */
export function useSteadyHeight<T extends HTMLElement>() {
  const part = useRef<T>(null);
  useEffect(() => {
    const element = part.current;
    if (!element) return;
    let width = 0;
    const watch = new ResizeObserver(() => {
      if (element.offsetWidth !== width) {
        width = element.offsetWidth;
        element.style.minHeight = "";
      }
      element.style.minHeight = `${element.offsetHeight}px`;
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return part;
}

/** A press that begins on a button stays that button's, though figures that arrive meanwhile move it from under the thumb. */
export function holdPress({ target, pointerId }: PointerEvent): void {
  const button = target instanceof Element ? target.closest("button") : null;
  button?.setPointerCapture(pointerId);
}
