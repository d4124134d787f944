import { spawn, spawnSync, type StdioOptions } from "node:child_process";
import { ROOT } from "./paths.ts";

export interface Ran {
  readonly code: number;
  readonly out: string;
}

/** Runs a program to its end and keeps what it printed. */
export function run(
  program: string,
  args: readonly string[],
  options: { readonly cwd?: string; readonly env?: Readonly<Record<string, string>> } = {},
): Ran {
  const done = spawnSync(program, args, {
    cwd: options.cwd ?? ROOT,
    env: { ...process.env, ...options.env },
    encoding: "utf8",
    maxBuffer: 256 * 1024 * 1024,
  });
  return {
    code: done.status ?? 1,
    out: `${done.stdout ?? ""}${done.stderr ?? ""}${done.error ? done.error.message : ""}`,
  };
}

/** The exit code of a program that had to be ended, as the shell has it. */
export const TOOK_TOO_LONG = 124;

/** How long what a program printed may come after its end, ms. */
const LAST_WORDS_MS = 5000;

interface Limited {
  readonly env?: Readonly<Record<string, string>>;
  /** It is ended, with all it started, when it takes longer than this, s. */
  readonly limitS: number;
  /** Ends it, with all it started. */
  readonly signal?: AbortSignal | undefined;
}

/** Runs a program as a group of its own, and ends the whole group when it takes too long or this process ends. */
function runGroup(
  program: string,
  args: readonly string[],
  { env = {}, limitS, signal }: Limited,
  stdio: StdioOptions,
  heard: (text: string) => void,
): Promise<number> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, {
      cwd: ROOT,
      env: { ...process.env, ...env },
      stdio,
      detached: true,
    });
    let late = false;
    const end = () => {
      try {
        process.kill(-child.pid!, "SIGKILL");
      } catch {
        // It has ended by itself.
      }
    };
    const timer = setTimeout(() => {
      late = true;
      heard(`\n${program} ${args.join(" ")} took longer than ${limitS} s and was ended.\n`);
      end();
    }, limitS * 1000);
    process.once("exit", end);
    signal?.addEventListener("abort", end);
    child.stdout?.on("data", (text: Buffer) => heard(text.toString()));
    child.stderr?.on("data", (text: Buffer) => heard(text.toString()));
    const over = () => {
      clearTimeout(timer);
      process.off("exit", end);
      signal?.removeEventListener("abort", end);
      // Whatever it left behind goes with it.
      end();
    };
    child.on("error", (error) => {
      over();
      reject(error);
    });
    // What it printed last may come after its end.
    const ended = (code: number | null) => resolve(late ? TOOK_TOO_LONG : (code ?? 1));
    child.on("close", ended);
    child.on("exit", (code) => {
      over();
      // Something it left running elsewhere may hold its output open.
      setTimeout(() => ended(code), LAST_WORDS_MS).unref();
    });
  });
}

/** Runs a program without blocking, its output shown as it comes. */
export function show(program: string, args: readonly string[], limited: Limited): Promise<number> {
  return runGroup(program, args, limited, ["ignore", 2, 2], (text) => process.stderr.write(text));
}

/** Runs a program beside others, and keeps what it printed until it is asked for. */
export async function aside(program: string, args: readonly string[], limited: Limited): Promise<Ran> {
  let out = "";
  const code = await runGroup(program, args, limited, ["ignore", "pipe", "pipe"], (text) => {
    out += text;
  });
  return { code, out };
}

export const isRoot = process.getuid?.() === 0;
