import { useEffect, useState, type RefObject } from "react";

/** The width of an element in pixels as it is laid out; `first` until the page is alive. */
export function useWidth(element: RefObject<HTMLElement | null>, first: number): number {
  const [width, setWidth] = useState(first);
  useEffect(() => {
    if (!element.current) return;
    const observer = new ResizeObserver(([entry]) =>
      setWidth(Math.max(300, Math.floor(entry!.contentRect.width))),
    );
    observer.observe(element.current);
    return () => observer.disconnect();
  }, [element]);
  return width;
}

/** Round figures from low to at least high, about `count` steps of 1, 2 or 5 times a power of ten; those below low are left out. */
export function niceSteps(low: number, high: number, count: number): readonly number[] {
  const raw = Math.max(1e-9, high - low) / count;
  const power = 10 ** Math.floor(Math.log10(raw));
  const step = [1, 2, 5, 10].map((lead) => lead * power).find((size) => size >= raw * 0.999)!;
  const from = Math.ceil(low / step - 1e-9);
  const to = low === 0 ? Math.ceil(high / step - 1e-9) : Math.floor(high / step + 1e-9);
  return Array.from({ length: Math.max(1, to - from + 1) }, (_, i) =>
    Number(((from + i) * step).toPrecision(10)),
  );
}
