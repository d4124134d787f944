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

/** The smallest step of 1, 2 or 5 times a power of ten that cuts a span into at most `count` pieces. */
function roundStep(span: number, count: number): number {
  const raw = Math.max(1e-9, span) / count;
  const power = 10 ** Math.floor(Math.log10(raw));
  return [1, 2, 5, 10].map((lead) => lead * power).find((size) => size >= raw * 0.999)!;
}

const row = (from: number, to: number, step: number) =>
  Array.from({ length: to - from + 1 }, (_, i) => Number(((from + i) * step).toPrecision(10)));

/** Round figures from 0 to at least `high`. Example: `stepsCovering(27, 3)` is 0, 10, 20, 30. */
export function stepsCovering(high: number, count: number): readonly number[] {
  const step = roundStep(high, count);
  return row(0, Math.max(1, Math.ceil(high / step - 1e-9)), step);
}

/** Round figures within a span. Example: `stepsWithin(3.2, 31, 5)` is 10, 20, 30. */
export function stepsWithin(low: number, high: number, count: number): readonly number[] {
  const step = roundStep(high - low, count);
  return row(Math.ceil(low / step - 1e-9), Math.floor(high / step + 1e-9), step);
}
