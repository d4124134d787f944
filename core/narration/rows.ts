import type { Said } from "./context.ts";
import { FEWEST, type Course, type Unread } from "./course.ts";
import type { Found } from "./found.ts";
import { REASONS } from "./kills.ts";
import type { Quantity } from "./quantities.ts";
import { wordsOf } from "./tokens.ts";

/** What may stand between the figures of one row. */
const JOINS =
  /^(?:(?:it|it's|is|that's|and|at|with|bouncing|between|pulling|pulls|drawing|draws|taking|takes|using|about|around|roughly|just|only|like|wide|open|flat|out|full|throttle|gives|me|we|get|i|doing|does|goes)(?: |$)){0,4}$/;
/** Levels as a display has them, and speeds as a bike has them. */
const [MOST_LEVEL, LEAST_SPEED, MOST_SPEED] = [9, 3, 60];

const isLevel = ({ unit, value, exact, clock, high }: Quantity) =>
  unit === null && !exact && !clock && high === null && value >= 1 && value <= MOST_LEVEL;
const isSpeed = ({ unit, value, clock }: Quantity) =>
  unit === null && !clock && value >= LEAST_SPEED && value <= MOST_SPEED;

/**
 * Rows of a sweep whose measures are said once or never: "three, fourteen and a half, five amps" is level, speed and current,
 * where levels and currents were told by name elsewhere.
 *
 * @returns by the token a figure begins at, what it is
 */
export function rowsOf(
  said: Said,
  unread: readonly Unread[],
  course: Course,
  unit: "mi" | "km",
): readonly (readonly [from: number, found: Found])[] {
  if (course.of("level").length < 1 || course.of("amps").length < FEWEST) return [];
  const { quantities, tokens } = said;
  const open = new Set(
    unread.flatMap(({ quantity, because }) => (because === REASONS.unlicensed ? [quantity.from] : [])),
  );
  const levels = new Set(course.of("level").map(({ at }) => at));
  const because = "level, speed and current, as in the rows beside it";
  const joined = (a: Quantity, b: Quantity) => JOINS.test(wordsOf(tokens, a.to, b.from));
  return quantities.flatMap((speed, i): (readonly [number, Found])[] => {
    const [level, load] = [quantities[i - 1], quantities[i + 1]];
    if (!level || !load || !isLevel(level) || !/^[AW]$/.test(load.unit ?? "")) return [];
    const isNamed = speed.unit === "mph" || speed.unit === "km/h";
    if (!isNamed && !(isSpeed(speed) && open.has(speed.from))) return [];
    if (!joined(level, speed) || !joined(speed, load)) return [];
    const isRead = levels.has(level.from);
    if (!isRead && !open.has(level.from)) return [];
    const found = (kind: "level" | "speed", { value, high }: Quantity): Found => ({
      ...{ kind, because, value: high === null ? value : [value, high] },
      unit: kind === "level" ? null : unit === "km" ? "km/h" : "mph",
    });
    return [
      ...(isRead ? [] : [[level.from, found("level", level)] as const]),
      ...(isNamed ? [] : [[speed.from, found("speed", speed)] as const]),
    ];
  });
}
