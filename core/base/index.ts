export { lastOf, nth, num, rowAt, there } from "./nth.ts";
export { countOf, farText, isPlainText, NOT_TEXT, plainText, text, widenedText } from "./text.ts";
export { dayOf, dayText, EARLIEST_S, instant, isInReach, LATEST_S, NO_SUCH_YEAR } from "./moments.ts";
export {
  clockText,
  clockToSecond,
  dayAt,
  isZone,
  momentOf,
  momentAfter,
  leftOut,
  typedClock,
  zoneOffsetMs,
} from "./clock.ts";
export { backSubstitute, choleskyOf, forwardSubstitute, type Lower } from "./cholesky.ts";
export * from "./result/index.ts";
export * from "./units/index.ts";
export * from "./defaults/index.ts";
export {
  bisect,
  firstNotBefore,
  interpolate,
  meanIfAny,
  meanOf,
  medianOf,
  pieceAt,
  sumOf,
} from "./numeric.ts";
