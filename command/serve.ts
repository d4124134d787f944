import { createServer, get, type Server } from "node:http";
import { join } from "node:path";
import { postgresPrograms } from "./packages.ts";
import { BUILD, MIGRATIONS } from "./paths.ts";

export interface Serving {
  readonly address: string;
  close(): Promise<void>;
}

/** What the built server's entry offers; see server/app.ts. */
interface BuiltServer {
  readonly makeApp: (options: { readonly clientFolder: string }) => Parameters<typeof createServer>[1];
  readonly closeDatabase: () => Promise<void>;
  readonly warmUp: () => Promise<void>;
}

/** A request's headers and its whole body must be here within these, ms; nobody holds a connection by being slow. */
const HEADERS_MS = 10_000;
/** How often it is looked at who has taken longer, ms. */
const CHECKED_MS = 1000;
const REQUEST_MS = 120_000;
const KEEP_MS = 75_000;
/** Connections at once; more are turned away. */
const MOST_CONNECTIONS = 4000;
/** Ports that are tried when one is taken between the look and the listening. */
const TRIES = 20;

/** Loopback, unless a container of yours, with a proxy in front, says otherwise: only where the desk is shared. */
const HOST = process.env["PUBLIC_URL"] ? (process.env["BAROMETRON_LISTEN"] ?? "127.0.0.1") : "127.0.0.1";

function listen(server: Server, port: number): Promise<boolean> {
  return new Promise((resolve, reject) => {
    const failed = (error: NodeJS.ErrnoException) => {
      if (error.code === "EADDRINUSE") resolve(false);
      else reject(error);
    };
    server.once("error", failed);
    server.listen(port, HOST, () => {
      server.off("error", failed);
      resolve(true);
    });
  });
}

/** Asks for a page as one who is let in would: the first loads the rest of the program, and nobody waits for that. */
function firstPage(port: number): Promise<void> {
  const publicUrl = process.env["PUBLIC_URL"];
  const [path, headers] = publicUrl
    ? ["/sign-in", { host: new URL(publicUrl).host }]
    : ["/compare/references", {}];
  return new Promise((resolve) => {
    get({ host: "127.0.0.1", port, path, headers }, (answer) => answer.resume().once("end", resolve)).once(
      "error",
      () => resolve(),
    );
  });
}

/** Serves the built app on a loopback port, or the next one that is free. DATABASE_URL must be set. */
export async function serve(firstPort: number): Promise<Serving> {
  process.env["BAROMETRON_FONTS"] ??= join(BUILD, "fonts");
  process.env["BAROMETRON_COMPUTE"] ??= join(BUILD, "serve", "compute.js");
  process.env["BAROMETRON_MIGRATIONS"] ??= MIGRATIONS;
  process.env["BAROMETRON_POSTGRES"] ??= postgresPrograms() ?? "";
  const built = (await import(join(BUILD, "serve", "server.js"))) as BuiltServer;
  const server: Server = createServer(
    { headersTimeout: HEADERS_MS, requestTimeout: REQUEST_MS, connectionsCheckingInterval: CHECKED_MS },
    built.makeApp({ clientFolder: join(BUILD, "client") }),
  );
  server.maxConnections = MOST_CONNECTIONS;
  // Longer than browsers and proxies keep one: they end it, and never in the middle of asking.
  server.keepAliveTimeout = KEEP_MS;
  let port = firstPort;
  while (!(await listen(server, port))) {
    port += 1;
    if (port > firstPort + TRIES)
      throw new Error(`No free port from ${firstPort} on: close another program.`);
  }
  const address = `http://127.0.0.1:${port}`;
  await built.warmUp();
  await firstPage(port);
  return {
    address,
    close: async () => {
      await new Promise<void>((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      });
      await built.closeDatabase();
    },
  };
}
