import { createServer } from "node:net";

/** Whether a loopback port can be listened on now. */
export function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(false));
    probe.listen(port, "127.0.0.1", () => probe.close(() => resolve(true)));
  });
}

/** The first free port from one on. */
export async function freePort(from: number): Promise<number> {
  for (let port = from; port < Math.min(from + 200, 65_536); port += 1) if (await isFree(port)) return port;
  throw new Error(`No free port from ${from} on: close another program and run this again.`);
}
