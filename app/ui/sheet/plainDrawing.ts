/** What could make a drawing do something, or reach outside of itself: programs, other files, definitions of its own. */
const REACHES_OUT =
  /<!|<\s*(image|feImage|foreignObject|script|use|style|a|animate|set)\b|\son\w+\s*=|href|@import|url\(\s*['"]?(?!#)/i;

/**
 * Whether an SVG is a drawing and nothing else, such as our own are: what comes from elsewhere, in a desk's open files or
 * from a browser, is held to it.
 *
 * @example isPlainDrawing('<svg><path d="M0 0H9" fill="url(#mud)"/></svg>') === true
 * @example isPlainDrawing('<svg onload="alert(1)"/>') === false
 */
export const isPlainDrawing = (svg: string): boolean => svg.startsWith("<svg") && !REACHES_OUT.test(svg);
