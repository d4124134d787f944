import { createServer as createHttp } from "node:http";
import { join } from "node:path";
import express from "express";
import { createServer } from "vite";
import { migrateDatabase } from "#db/migrate";
import { deskCluster } from "./cluster.ts";
import { writeFonts } from "./fonts.ts";
import { BUILD, MIGRATIONS } from "./paths.ts";
import { freePort } from "./ports.ts";
import { say } from "./say.ts";

/** Serves from source with Vite, on the desk's own database. */
export async function dev(): Promise<number> {
  const cluster = await deskCluster();
  await migrateDatabase(cluster.url, MIGRATIONS);
  process.env["DATABASE_URL"] = cluster.url;
  // Each start reckons anew, with the core as it is now.
  process.env["BAROMETRON_BUILD"] = `dev-${Date.now()}`;
  await writeFonts(join(BUILD, "fonts"));
  const port = await freePort(5180);
  const vite = await createServer({ server: { middlewareMode: true } });
  const app = express();
  app.use(vite.middlewares);
  app.use(async (request, response, next) => {
    const source = (await vite.ssrLoadModule("./server/app.ts")) as {
      makeApp: (options: object) => express.Express;
    };
    source.makeApp({ development: true })(request, response, next);
  });
  const server = createHttp(app).listen(port, "127.0.0.1");
  say(`Barometron for development: http://127.0.0.1:${port}`);
  await new Promise<void>((resolve) => process.once("SIGINT", resolve).once("SIGTERM", resolve));
  server.close();
  await vite.close();
  cluster.stop();
  return 0;
}
