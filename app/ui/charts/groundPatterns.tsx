/** Each ground has a hatch and a letter of its own. */
const LETTERS: Readonly<Record<string, string>> = {
  asphalt: "A",
  brick: "B",
  "fine gravel": "F",
  "loose gravel": "L",
  grass: "G",
  mud: "M",
  snow: "S",
};

const slug = (ground: string) => ground.replace(" ", "-");

export function groundLetter(ground: string): string {
  return LETTERS[ground] ?? "?";
}

export function groundFill(ground: string): string {
  return ground === "asphalt" ? "var(--color-bone)" : `url(#ground-${slug(ground)})`;
}

const LINE = { stroke: "var(--color-quiet)", strokeWidth: 1, fill: "none" };

/** The hatches, to be placed once in each drawing; with throttle's. */
export function GroundPatterns() {
  return (
    <defs>
      <pattern id="throttle" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="6" height="6" fill="var(--color-tint)" />
        <path d="M0 0V6" stroke="var(--color-spruce)" strokeWidth={5} />
      </pattern>
      <pattern id="ground-brick" width="12" height="8" patternUnits="userSpaceOnUse">
        <path d="M0 0H12M0 4H12M3 0V4M9 4V8" {...LINE} />
      </pattern>
      <pattern id="ground-fine-gravel" width="8" height="8" patternUnits="userSpaceOnUse">
        <circle cx="2" cy="2" r="0.9" fill="var(--color-quiet)" />
        <circle cx="6" cy="6" r="0.9" fill="var(--color-quiet)" />
      </pattern>
      <pattern id="ground-loose-gravel" width="5" height="5" patternUnits="userSpaceOnUse">
        <circle cx="1.5" cy="1.5" r="1.1" fill="var(--color-quiet)" />
        <circle cx="4" cy="4" r="1.1" fill="var(--color-quiet)" />
      </pattern>
      <pattern id="ground-grass" width="7" height="9" patternUnits="userSpaceOnUse">
        <path d="M2 7V3M5 9V6" {...LINE} />
      </pattern>
      <pattern id="ground-mud" width="14" height="8" patternUnits="userSpaceOnUse">
        <path d="M0 4Q3.5 0 7 4T14 4" {...LINE} />
      </pattern>
      <pattern id="ground-snow" width="10" height="10" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r="2" {...LINE} />
      </pattern>
    </defs>
  );
}
