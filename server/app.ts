import { randomBytes } from "node:crypto";
import { createRequestHandler } from "@react-router/express";
import { sql } from "drizzle-orm";
import compression from "compression";
import express from "express";
import { RouterContextProvider, type ServerBuild } from "react-router";
import sirv from "sirv";
import { dbContext, nonceContext } from "#app/context";
import { fillInBackground } from "#app/services/analysis.server";
import { closePools } from "#app/services/compute/pool.server";
import { connect, type Connection } from "#db/client";
import { failureOf, guardRoutes, logLine } from "./failures.ts";
import { guard, headers, limits } from "./guard.ts";

const isPage = (type: unknown) => /^(text\/html|text\/x-script|application\/json)/.test(String(type ?? ""));

const NO_CACHE = { "Cache-Control": "no-cache" };

let connection: Connection | null = null;

function database(): Connection {
  const url = process.env["DATABASE_URL"];
  if (!url) throw new Error("DATABASE_URL is not set: run ./barometron start.");
  return (connection ??= connect(url));
}

/** Ends threads and connections, so that the process can end. */
export async function closeDatabase(): Promise<void> {
  await closePools();
  await connection?.close();
  connection = null;
}

/** Begins to reckon what is out of date, so that the first page finds it done. */
export function warmUp(): void {
  fillInBackground(database().db);
}

const loadBuild = async () => guardRoutes((await import("virtual:react-router/server-build")) as ServerBuild);

/** Answers by the routes; the build is loaded once, in development each time anew. */
function routes(development: boolean): express.RequestHandler {
  const handlerFor = (build: ServerBuild) =>
    createRequestHandler({
      build,
      getLoadContext: (_request, response) => {
        const context = new RouterContextProvider();
        context.set(dbContext, database().db);
        context.set(nonceContext, String(response.locals["nonce"] ?? ""));
        return context;
      },
    });
  let handler: Promise<ReturnType<typeof handlerFor>> | null = null;
  return async (request, response, next) => {
    if (development || !handler) handler = loadBuild().then(handlerFor);
    await (
      await handler
    )(request, response, next);
  };
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
    const worker = `${options.clientFolder}/sw.js`;
    // Read anew each time: a newer one is met as soon as it is there.
    app.get("/sw.js", (_request, response) =>
      response.sendFile(worker, { cacheControl: false, headers: NO_CACHE }),
    );
    app.use(
      sirv(options.clientFolder, {
        brotli: true,
        gzip: true,
        extensions: [],
        setHeaders: (response, path) =>
          response.setHeader(
            "Cache-Control",
            path.startsWith("/assets/") ? "public, max-age=31536000, immutable" : "public, max-age=3600",
          ),
      }),
    );
  }
  // Alive: the process answers. Ready: the database does too.
  app.get("/live", (_request, response) => {
    response.json({ ok: true });
  });
  app.get(["/ready", "/health"], async (_request, response) => {
    try {
      await database().db.execute(sql`select 1`);
      response.json({ ok: true });
    } catch {
      response
        .status(503)
        .set("Retry-After", "2")
        .json({ ok: false, sentence: "The database does not answer." });
    }
  });
  app.use(limits());
  // Pages and their data; what streams goes out as it comes.
  app.use(
    compression({ level: 4, filter: (_request, response) => isPage(response.getHeader("Content-Type")) }),
  );
  app.use((_request, response, next) => {
    response.locals["nonce"] = options.development ? "" : randomBytes(16).toString("base64");
    next();
  });
  if (!options.development) app.use(headers());
  app.use(routes(options.development ?? false));
  app.use(
    (error: unknown, _request: express.Request, response: express.Response, next: express.NextFunction) => {
      const failure = failureOf(error);
      if (!failure) console.error(logLine(error));
      if (response.headersSent) return next(error);
      if (failure?.status === 503) response.set("Retry-After", "2");
      response
        .status(failure?.status ?? 500)
        .type("text")
        .send(
          failure?.sentence ??
            "Something broke on the server. Nothing was changed; the log of the start command says more.",
        );
    },
  );
  return app;
}
