import { lately, type Asked, type Found, type ReadingKind } from "./found.ts";

/** What is asked for by its name alone, and what figures answer: "Pulse? 151." */
const ASKED: readonly (readonly [names: string, kind: ReadingKind, low: number, high: number])[] = [
  ["pulse|heart rate|heart ?beat", "heart_rate", 40, 220],
  ["speed|how fast", "speed", 2, 62],
  ["volts|voltage", "volts", 18, 110],
  ["watts|power draw", "watts", 20, 3000],
  ["amps|current", "amps", 1, 80],
  ["battery|charge|percent|percentage", "percent_left", 0, 100],
];
const BY_NAME = ASKED.map(
  ([names, kind, low, high]) =>
    [
      new RegExp(
        `^(?:(?:and|so|ok|okay|now|right|what's|what is|what|how's|your|my|our|the|,) )*(?:${names})(?: (?:is it|now|then|at|on|again|are you on|are we on|please|,))* [.] $`,
      ),
      ...[kind, low, high],
    ] as const,
);
const BACK =
  /^(?:and |so )?(?:what's |what about |how about |how's )?(?:yours|you)(?: then| now| at| on| say| showing)* [.] $/;
const BACK_KINDS = /^(?:heart_rate|speed|volts|watts|amps|percent_left|bars_left)$/;
/** Two who ride together differ by less, as a part. */
const ALIKE = 0.4;
const SOON = 14;

const UNITS: Readonly<Partial<Record<ReadingKind, string>>> = {
  heart_rate: "bpm",
  volts: "V",
  watts: "W",
  amps: "A",
  percent_left: "%",
};

/** A bare figure that answers the short question right before it; null elsewhere. */
export function answerOf({ quantity, around, ride }: Asked): Found | null {
  const { value, clock, high, unit } = quantity;
  if (unit !== null || clock || high !== null || around.before.trim() !== "") return null;
  const found = (kind: ReadingKind, because: string, of?: Found["of"]): Found => ({
    ...{ kind, value, because, ...(of && { of }) },
    unit: kind === "speed" ? (ride.unit === "km" ? "km/h" : "mph") : (UNITS[kind] ?? null),
  });
  for (const [names, kind, low, most] of BY_NAME)
    if (names.test(around.earlier) && value >= low && value <= most)
      return found(kind, "it answers the question before it");
  const last = BACK.test(around.earlier) ? lately(ride, quantity.from, BACK_KINDS, SOON) : null;
  return last && typeof last.value === "number" && Math.abs(value / last.value - 1) < ALIKE
    ? found(last.kind as ReadingKind, "it answers the question before it", "yours")
    : null;
}
