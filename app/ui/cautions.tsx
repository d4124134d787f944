/** Cautions of the work, short enough to be read where they matter; in full on the settings page. */
export const CAUTIONS = {
  pack: [
    "Never open a pack, bridge its contacts or bypass its protection.",
    "Charge attended, with the matched charger, away from exits; not below 0 C (32 F), nor hot from a ride.",
    "Swelling, smell, hiss, heat or damage: stop, move away, call the emergency number.",
    "Frequent full discharges shorten a pack's life; store it about half full.",
    "Clamp and inline meters only on wiring made for them. Anything inside a pack or controller is for a licensed technician.",
  ],
  riding: [
    "Fast and heavy bikes: check the brakes first.",
    "Test top speed only where it is lawful. Classes, throttles and paths differ by place: local law decides.",
    "Read and type only when stopped.",
    "Helmet, lights, water, clothes for the heat or the cold; tell somebody; keep a way home without the motor.",
  ],
} as const;

interface CautionsProps {
  readonly of: keyof typeof CAUTIONS;
  /** Only the first few. */
  readonly most?: number;
}

export function Cautions({ of, most = 99 }: CautionsProps) {
  return (
    <ul className="border-l-4 border-ochre-fill bg-sheet px-4 py-3 text-sm">
      {CAUTIONS[of].slice(0, most).map((caution) => (
        <li key={caution}>{caution}</li>
      ))}
    </ul>
  );
}
