import { randomBytes } from "node:crypto";
import { createRequestHandler } from "@react-router/express";
import { sql } from "drizzle-orm";
import express from "express";
import { RouterContextProvider } from "react-router";
import { dbContext, nonceContext } from "#app/context";
import { connect, type Connection } from "#db/client";
import { guard, headers } from "./guard.ts";

let connection: Connection | null = null;

function database(): Connection {
  const url = process.env["DATABASE_URL"];
  if (!url) throw new Error("DATABASE_URL is not set: run ./barometron start.");
  return (connection ??= connect(url));
}

/** Ends the pool, so that the process can end. */
export async function closeDatabase(): Promise<void> {
  await connection?.close();
  connection = null;
}

/** The whole web application: guards, static files, health, and the routes. */
export function makeApp(options: {
  readonly clientFolder?: string;
  readonly development?: boolean;
}): express.Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(guard());
  if (options.clientFolder) {
    app.use("/assets", express.static(`${options.clientFolder}/assets`, { immutable: true, maxAge: "1y" }));
    app.use(
      express.static(options.clientFolder, {
        index: false,
        setHeaders: (response, path) =>
          response.setHeader("Cache-Control", path.endsWith("sw.js") ? "no-cache" : "public, max-age=3600"),
      }),
    );
  }
  app.get("/health", async (_request, response) => {
    try {
      await database().db.execute(sql`select 1`);
      response.json({ ok: true });
    } catch {
      response.status(503).json({ ok: false, sentence: "The database does not answer." });
    }
  });
  app.use((_request, response, next) => {
    response.locals["nonce"] = options.development ? "" : randomBytes(16).toString("base64");
    next();
  });
  if (!options.development) app.use(headers());
  app.use(
    createRequestHandler({
      build: () => import("virtual:react-router/server-build"),
      getLoadContext: (_request, response) => {
        const context = new RouterContextProvider();
        context.set(dbContext, database().db);
        context.set(nonceContext, String(response.locals["nonce"] ?? ""));
        return context;
      },
    }),
  );
  app.use(
    (error: unknown, _request: express.Request, response: express.Response, _next: express.NextFunction) => {
      console.error(error);
      response
        .status(500)
        .type("text")
        .send("Something broke on the server. Nothing was changed; the log of the start command says more.");
    },
  );
  return app;
}
