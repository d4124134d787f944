import { closeSync, existsSync, openSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { DATA } from "./paths.ts";

/** Where a start notes its process and, once it serves, its address. */
export const RUNNING = join(DATA, "running.json");

export interface Running {
  readonly pid: number;
  /** Null while it is still starting. */
  readonly address: string | null;
}

/** The start that runs from this folder, if its process lives. */
export function runningHere(): Running | null {
  if (!existsSync(RUNNING)) return null;
  try {
    const running = JSON.parse(readFileSync(RUNNING, "utf8")) as Running;
    process.kill(running.pid, 0);
    return running;
  } catch {
    return null;
  }
}

/**
 * Takes this folder for one start: of two at once, one gets it. Null when another has it; else what notes the address, and
 * what lets go.
 */
export function takeFolder(): { serve(address: string): void; release(): void } | null {
  for (let tries = 0; tries < 2; tries += 1)
    try {
      const file = openSync(RUNNING, "wx", 0o600);
      writeFileSync(file, JSON.stringify({ pid: process.pid, address: null } satisfies Running));
      closeSync(file);
      return {
        serve: (address) =>
          writeFileSync(RUNNING, JSON.stringify({ pid: process.pid, address } satisfies Running)),
        release: () => rmSync(RUNNING, { force: true }),
      };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
      if (runningHere()) return null;
      // Left by a start that was killed.
      rmSync(RUNNING, { force: true });
    }
  return null;
}
