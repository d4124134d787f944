import { randomBytes } from "node:crypto";
import { createRequestHandler } from "@react-router/express";
import { sql } from "drizzle-orm";
import { toNodeHandler } from "better-auth/node";
import compression from "compression";
import express from "express";
import { RouterContextProvider, type ServerBuild } from "react-router";
import sirv from "sirv";
import { dbContext, demoContext, nonceContext, peopleContext } from "#app/context";
import { fillInBackground } from "#app/services/analysis.server";
import { orAtDemo } from "#app/services/people/demo.server";
import { admit } from "#app/services/people/guard.server";
import { peopleOf, scopeFor, whoAsks, type People } from "#app/services/people/people.server";
import { principalContext, type Principal } from "#app/services/people/principal";
import { sharingOf } from "#app/services/people/sharing.server";
import { closePools } from "#app/services/compute/pool.server";
import { connect, type Connection } from "#db/client";
import { listDesks } from "#db/people/people";
import { DEMO_DESK } from "#db/schema";
import { failureOf, guardRoutes, logLine } from "./failures.ts";
import { atOnce, guard, headers, limits, refuseLargeOfStrangers } from "./guard.ts";
import { log, metrics, watched } from "./watch.ts";

const isPage = (type: unknown) => /^(text\/html|text\/x-script|application\/json)/.test(String(type ?? ""));

const NO_CACHE = { "Cache-Control": "no-cache" };

let connection: Connection | null = null;

function database(): Connection {
  const url = process.env["DATABASE_URL"];
  if (!url) throw new Error("DATABASE_URL is not set: run ./barometron start.");
  return (connection ??= connect(url, undefined, sharing !== null));
}

/** How the desk is reached by others; null on one's own machine. */
const sharing = sharingOf(process.env);
let people: People | null = null;
const peopleHere = (): People | null => (sharing ? (people ??= peopleOf(database(), sharing)) : null);

/** A request of the browser as the platform has it, for its headers. */
const asked = (request: express.Request) =>
  new Request(`${sharing?.publicUrl ?? "http://here"}${request.originalUrl}`, {
    headers: new Headers(
      Object.entries(request.headers).flatMap(([name, value]) =>
        value === undefined
          ? []
          : [[name, Array.isArray(value) ? value.join(", ") : value] as [string, string]],
      ),
    ),
  });

/** Ends threads and connections, so that the process can end. */
export async function closeDatabase(): Promise<void> {
  await closePools();
  await connection?.close();
  connection = null;
  people = null;
}

/** Begins to reckon what is out of date, so that the first page finds it done. */
export async function warmUp(): Promise<void> {
  for (const { id } of await listDesks(database().db))
    fillInBackground(database().at({ deskId: id, actor: "" }));
}

const loadBuild = async () =>
  guardRoutes((await import("virtual:react-router/server-build")) as ServerBuild, admit);

/** Answers by the routes; the build is loaded once, in development each time anew. */
function routes(development: boolean): express.RequestHandler {
  const handlerFor = (build: ServerBuild) =>
    createRequestHandler({
      build,
      getLoadContext: (_request, response) => {
        const context = new RouterContextProvider();
        const principal = response.locals["principal"] as Principal;
        context.set(principalContext, principal);
        context.set(peopleContext, peopleHere());
        context.set(dbContext, database().at(scopeFor(principal)));
        context.set(demoContext, database().at({ deskId: DEMO_DESK, actor: "" }));
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
  if (sharing) app.set("trust proxy", sharing.trustedProxies);
  app.use(watched());
  app.use(guard(sharing));
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
  app.get("/metrics", metrics);
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
  if (sharing) app.use(atOnce());
  // Pages and their data; what streams goes out as it comes.
  app.use(
    compression({ level: 4, filter: (_request, response) => isPage(response.getHeader("Content-Type")) }),
  );
  app.use((_request, response, next) => {
    response.locals["nonce"] = options.development ? "" : randomBytes(16).toString("base64");
    next();
  });
  if (!options.development) app.use(headers(sharing !== null));
  // Who asks; on one's own machine it is whoever sits there.
  app.use(async (request, response, next) => {
    const here = peopleHere();
    // What a client says of itself here is not taken.
    request.headers["x-asker"] = request.ip ?? "unknown";
    // The guard has seen that it is for the public address: that is HTTPS, whether a proxy says so or not.
    if (sharing) Object.defineProperty(request, "protocol", { value: "https" });
    const question = asked(request);
    const principal: Principal = here ? await whoAsks(here, question) : { kind: "machine" };
    response.locals["principal"] = orAtDemo(principal, question);
    next();
  });
  app.use(refuseLargeOfStrangers(({ locals }) => (locals["principal"] as Principal).kind === "nobody"));
  // Passkeys speak to their own addresses; signing in and out by a form is the pages' work.
  app.all("/auth/{*path}", async (request, response, next) => {
    const here = peopleHere();
    if (!here || !/^\/auth\/passkey\//.test(request.path)) return next();
    await toNodeHandler(here.auth)(request, response);
  });
  app.use(routes(options.development ?? false));
  app.use(
    (error: unknown, _request: express.Request, response: express.Response, next: express.NextFunction) => {
      const failure = failureOf(error);
      if (!failure) log.error({ id: String(response.locals["requestId"] ?? "") }, logLine(error));
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
