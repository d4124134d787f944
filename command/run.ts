import { spawn, spawnSync } from "node:child_process";
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

/** Runs a program without blocking, its output shown as it comes. */
export function show(
  program: string,
  args: readonly string[],
  env: Readonly<Record<string, string>> = {},
): Promise<number> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, {
      cwd: ROOT,
      env: { ...process.env, ...env },
      stdio: ["ignore", 2, 2],
    });
    child.on("error", reject);
    child.on("exit", (code) => resolve(code ?? 1));
  });
}

/** Runs a program beside others, and keeps what it printed until it is asked for. */
export function aside(program: string, args: readonly string[]): Promise<Ran> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { cwd: ROOT, stdio: ["ignore", "pipe", "pipe"] });
    let out = "";
    const keep = (text: Buffer) => {
      out += text.toString();
    };
    child.stdout.on("data", keep);
    child.stderr.on("data", keep);
    child.on("error", reject);
    child.on("exit", (code) => resolve({ code: code ?? 1, out }));
  });
}

export const isRoot = process.getuid?.() === 0;
