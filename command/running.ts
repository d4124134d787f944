import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { DATA } from "./paths.ts";

/** Where a start notes its process and address. */
export const RUNNING = join(DATA, "running.json");

/** The start that runs from this folder, if its process lives. */
export function runningHere(): { readonly pid: number; readonly address: string } | null {
  if (!existsSync(RUNNING)) return null;
  try {
    const running = JSON.parse(readFileSync(RUNNING, "utf8")) as { pid: number; address: string };
    process.kill(running.pid, 0);
    return running;
  } catch {
    return null;
  }
}
