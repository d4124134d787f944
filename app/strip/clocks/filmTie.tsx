import { momentOf, stopwatchAt, typedClock } from "#core/base";

/** The moment the film is tied by, as it is typed: what the clock said, and where the film was. */
export interface TypedTie {
  readonly clock: string;
  readonly film: string;
}

export const NO_TIE: TypedTie = { clock: "", film: "" };

const clockMs = ({ clock }: TypedTie, day: string, zone: string) =>
  clock.trim() ? momentOf(day, typedClock(clock) ?? "", zone) : null;
const filmS = ({ film }: TypedTie) => (film.trim() ? stopwatchAt(film) : 0);

/** When a film began by what was typed, s since the epoch; null where it says nothing yet. */
export function beganByTie(tie: TypedTie, day: string, zone: string): number | null {
  const [atMs, inS] = [clockMs(tie, day, zone), filmS(tie)];
  return atMs === null || Number.isNaN(atMs) || inS === null ? null : atMs / 1000 - inS;
}

/** What to type where a tie cannot be read; null for one that can be, and for none. */
export function tieProblem(tie: TypedTie, day: string, zone: string): string | null {
  const atMs = clockMs(tie, day, zone);
  if (atMs !== null && Number.isNaN(atMs)) return "Type what the clock said, such as 10:20 or 10:20:15.";
  if (filmS(tie) === null) return "Type where the film was then, such as 1:05 or 1:02:07.";
  return atMs === null && tie.film.trim() ? "Type what the clock said then, such as 10:20." : null;
}

interface TieFieldsProps {
  readonly tie: TypedTie;
  readonly onTie: (tie: TypedTie) => void;
  readonly isWrong: boolean;
}

/** Fields of the tie, sent with the form they stand in. */
export function TieFields({ tie, onTie, isWrong }: TieFieldsProps) {
  return (
    <>
      <label className="grid text-sm font-medium">
        The clock said
        <input
          name="clock"
          value={tie.clock}
          placeholder="10:20:15"
          autoComplete="off"
          aria-invalid={isWrong || undefined}
          className="input mt-1 max-w-32"
          onChange={({ target }) => onTie({ ...tie, clock: target.value })}
        />
      </label>
      <label className="grid text-sm font-medium">
        when the film was at
        <input
          name="film"
          value={tie.film}
          placeholder="0:00"
          autoComplete="off"
          className="input mt-1 max-w-32"
          onChange={({ target }) => onTie({ ...tie, film: target.value })}
        />
      </label>
    </>
  );
}
