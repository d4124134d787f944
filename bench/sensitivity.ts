import { ASSUMPTION_NAMES, assuming, DEFAULTS, type AssumptionName } from "#core/base";
import { analyseTest } from "#core/analysis";
import type { KindName } from "#core/world";
import { worldTest } from "#tests/world";

/** One log a kind of evidence, by which the headline's dependence on each default is told. */
export const SENSITIVITY_KINDS: readonly KindName[] = [
  "part charge",
  "run-down",
  "bars",
  "rest volts",
  "metered",
  "refill",
  "cold",
  "hills, typed",
];
const SEED = 7;
/** How far a default is moved, as a share of it. */
const MOVED = 0.1;
/** A default that moves no log's figure by so much is not printed. */
const LEAST = 0.001;

/** What a default, a tenth larger, makes of the headline Wh/mi of one log a kind, as shares; null where there is no figure. */
export interface SensitivityLine {
  readonly name: AssumptionName;
  readonly moves: readonly (number | null)[];
}

const headlineOf = (kind: KindName): number | null => {
  const found = analyseTest(worldTest(SEED, kind).record);
  return found.ok ? found.value.best.value.mean : null;
};

/** A line for each default that moves any of the logs, the one that moves most first. */
export function sensitivity(): readonly SensitivityLine[] {
  const usual = SENSITIVITY_KINDS.map(headlineOf);
  const most = ({ moves }: SensitivityLine) => Math.max(...moves.map((move) => Math.abs(move ?? 0)));
  return ASSUMPTION_NAMES.map((name): SensitivityLine => {
    const moved = assuming({ [name]: DEFAULTS[name] * (1 + MOVED) }, () => SENSITIVITY_KINDS.map(headlineOf));
    return {
      name,
      moves: moved.map((value, i) => {
        const before = usual[i];
        return value === null || before === null || before === undefined ? null : value / before - 1;
      }),
    };
  })
    .filter((line) => most(line) >= LEAST)
    .sort((a, b) => most(b) - most(a));
}

const shown = (move: number | null) =>
  move === null ? "" : Math.abs(move) < LEAST / 2 ? "" : (100 * move).toFixed(1);

/** The head of the table and a line of it, as docs/method.md has them. */
export const SENSITIVITY_HEAD = `| default | ${SENSITIVITY_KINDS.join(" | ")} |`;
export const sensitivityText = ({ name, moves }: SensitivityLine): string =>
  `| ${name} | ${moves.map(shown).join(" | ")} |`;
