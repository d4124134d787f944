import { existsSync, linkSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { DATA } from "./paths.ts";

/** Where a start notes its process and, once it serves, its address. */
export const RUNNING = join(DATA, "running.json");

export interface Running {
  readonly pid: number;
  /** Which process it is: a number is given to another one later, and in a container always to the first. */
  readonly mark: string | null;
  /** Null while it is still starting. */
  readonly address: string | null;
}

/** Which process has a number now: the boot of the machine and the moment in it when that process began; null where it cannot be seen. */
export function markOf(pid: number): string | null {
  try {
    const boot = readFileSync("/proc/sys/kernel/random/boot_id", "utf8").trim();
    // After the name, which may hold anything, the twentieth field is when it began, in ticks.
    const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
    return `${boot}/${stat.slice(stat.lastIndexOf(")") + 2).split(" ")[19]}`;
  } catch {
    return null;
  }
}

/** Whether a start is still the process that noted itself. */
function lives({ pid, mark }: Running): boolean {
  // This process has noted nothing yet when it looks: its own number is one that was given again.
  if (pid === process.pid) return false;
  try {
    process.kill(pid, 0);
  } catch {
    return false;
  }
  return !mark || mark === markOf(pid);
}

/** The start that runs from a folder, if its process lives. */
export function runningHere(file = RUNNING): Running | null {
  if (!existsSync(file)) return null;
  try {
    const running = JSON.parse(readFileSync(file, "utf8")) as Running;
    return lives(running) ? running : null;
  } catch {
    return null;
  }
}

/**
 * Takes this folder for one start: of two at once, one gets it. Null when another has it; else what notes the address, and
 * what lets go.
 */
export function takeFolder(file = RUNNING): { serve(address: string): void; release(): void } | null {
  const own = `${file}.${process.pid}`;
  const write = (address: string | null) => {
    const { pid } = process;
    writeFileSync(own, JSON.stringify({ pid, mark: markOf(pid), address } satisfies Running), {
      mode: 0o600,
    });
  };
  for (let tries = 0; tries < 2; tries += 1)
    try {
      write(null);
      // Whole or not at all: nobody reads half of it.
      linkSync(own, file);
      return {
        serve: (address) => {
          write(address);
          renameSync(own, file);
        },
        release: () => rmSync(file, { force: true }),
      };
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
      if (runningHere(file)) return null;
      // Left by a start that was killed.
      rmSync(file, { force: true });
    } finally {
      rmSync(own, { force: true });
    }
  return null;
}
