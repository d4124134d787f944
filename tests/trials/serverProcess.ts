import { spawn } from "node:child_process";
import { ROOT } from "../../command/paths";

/** The built server in a process of its own. */
export interface ServerProcess {
  readonly address: string;
  readonly pid: number;
  /** What it has written of errors, its last part. */
  said(): string;
  /** How it ended: its code, null by a signal; undefined while it runs. */
  ended(): number | null | undefined;
  /** Ends it in the middle of whatever it does. */
  kill(): Promise<void>;
}

/** Far over what a test or a bench asks of one address. */
const MANY_REQUESTS = "1000000";
const KEPT = 200_000;

/** Starts it on a port or the next free one. Throws with what it said when it does not serve. */
export async function startServerProcess(
  databaseUrl: string,
  port: number,
  env: Readonly<Record<string, string>> = {},
): Promise<ServerProcess> {
  const child = spawn("node", ["--import", "tsx", "tests/trials/server.ts", String(port)], {
    cwd: ROOT,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      NODE_ENV: "production",
      BAROMETRON_MOST_REQUESTS: MANY_REQUESTS,
      ...env,
    },
    stdio: ["ignore", "pipe", "pipe", "ipc"],
  });
  let said = "";
  child.stderr!.on("data", (text: Buffer) => {
    said = (said + text.toString()).slice(-KEPT);
  });
  let ended: number | null | undefined;
  const gone = new Promise<void>((resolve) =>
    child.once("exit", (code) => {
      ended = code;
      resolve();
    }),
  );
  const address = await new Promise<string>((resolve, reject) => {
    child.stdout!.once("data", (text: Buffer) => resolve(text.toString().trim()));
    child.once("exit", () => reject(new Error(`the server did not start: ${said}`)));
  });
  return {
    address,
    pid: child.pid!,
    said: () => said,
    ended: () => ended,
    kill: async () => {
      if (ended === undefined) child.kill("SIGKILL");
      await gone;
    },
  };
}
