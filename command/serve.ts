import { createServer, type Server } from "node:http";
import { join } from "node:path";
import { BUILD } from "./paths.ts";

export interface Serving {
  readonly address: string;
  close(): Promise<void>;
}

/** What the built server's entry offers; see server/app.ts. */
interface BuiltServer {
  readonly makeApp: (options: { readonly clientFolder: string }) => Parameters<typeof createServer>[1];
  readonly closeDatabase: () => Promise<void>;
}

/** Serves the built app on a loopback port. DATABASE_URL must be set. */
export async function serve(port: number): Promise<Serving> {
  const built = (await import(join(BUILD, "server", "index.js"))) as BuiltServer;
  const server: Server = createServer(built.makeApp({ clientFolder: join(BUILD, "client") }));
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", resolve);
  });
  return {
    address: `http://127.0.0.1:${port}`,
    close: async () => {
      await new Promise<void>((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      });
      await built.closeDatabase();
    },
  };
}
