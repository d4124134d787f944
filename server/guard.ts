import { createHash, timingSafeEqual } from "node:crypto";
import type { IncomingMessage } from "node:http";
import type { RequestHandler, Response } from "express";
import { rateLimit } from "express-rate-limit";
import helmet from "helmet";

/** Largest request body: a long recording as GPX, with room to spare. */
export const BODY_LIMIT_BYTES = 32 * 1024 * 1024;

const YEAR_S = 31_536_000;
const LOOPBACK = new Set(["localhost", "127.0.0.1", "[::1]"]);

/** A refusal the browser's own form or fetch can show: a status and one sentence. */
function refuse(response: Response, status: number, sentence: string): void {
  response.status(status).set("Connection", "close").type("text").send(sentence);
}

/** What a monitor asks for. On a shared desk it is on this machine, or shows a token: strangers are answered nothing. */
const FOR_MONITORS = new Set(["/live", "/ready", "/health", "/metrics"]);

/** Where the desk is reached by others: the only host its pages are at, and the only origin its forms come from. */
export interface Reached {
  readonly host: string;
  readonly publicUrl: string;
}

/** Whether a proxy handed a request on: whoever asked is not on this machine, whatever host they name. */
const isPassedOn = ({ headers }: IncomingMessage): boolean =>
  ["x-forwarded-for", "x-forwarded-host", "x-forwarded-proto", "forwarded", "via"].some(
    (name) => name in headers,
  );

/** BAROMETRON_MONITOR_TOKEN, 16 characters or more, lets a monitor elsewhere in. */
function showsToken({ headers }: IncomingMessage): boolean {
  const token = process.env["BAROMETRON_MONITOR_TOKEN"] ?? "";
  const [shown, wanted] = [headers.authorization ?? "", `Bearer ${token}`].map((text) =>
    createHash("sha256").update(text).digest(),
  );
  return token.length >= 16 && timingSafeEqual(shown!, wanted!);
}

/**
 * Refuses what no page of ours sends: a foreign host name, a form posted from another origin, a body without a length
 * or over the limit.
 *
 * @param reached where the desk is shared; null on one's own machine
 */
export function guard(reached: Reached | null = null): RequestHandler {
  return (request, response, next) => {
    const host = request.headers.host ?? "";
    const isHere = LOOPBACK.has(host.replace(/:\d+$/, ""));
    if (reached && FOR_MONITORS.has(request.path)) {
      if ((isHere && !isPassedOn(request)) || showsToken(request)) return next();
      return refuse(response, 404, "There is nothing at this address.");
    }
    if (reached ? host !== reached.host : !isHere)
      return refuse(
        response,
        403,
        reached ? `This desk is at ${reached.publicUrl}.` : "Barometron answers on this machine only.",
      );
    if (request.method === "GET" || request.method === "HEAD") return next();
    const { origin } = request.headers;
    if (origin !== (reached?.publicUrl ?? `http://${host}`))
      return refuse(response, 403, "This was sent from another site and was not carried out.");
    const length = Number(request.headers["content-length"] ?? NaN);
    if (!Number.isFinite(length)) return refuse(response, 411, "The request does not say how long it is.");
    if (length > BODY_LIMIT_BYTES)
      return refuse(response, 413, "That is over 32 MB: bring in one ride at a time.");
    return next();
  };
}

/** Requests of one address in a while: far more than a person, a phone and their outboxes ask for, ms. */
const WINDOW_MS = 10_000;
const MOST_REQUESTS = Number(process.env["BAROMETRON_MOST_REQUESTS"] ?? 3000);

/** Turns away an address that asks without end, for a moment, so that others are still answered. */
export function limits(): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit: MOST_REQUESTS,
    standardHeaders: true,
    legacyHeaders: false,
    statusCode: 503,
    message: "Too much is being asked for at once: try again in a moment.",
  });
}

/** Largest body of whoever has not come in: a form of signing in, with room to spare. */
const STRANGERS_BODY_BYTES = 64 * 1024;

/** Refuses a stranger's large body before any of it is read. */
export function refuseLargeOfStrangers(isStranger: (response: Response) => boolean): RequestHandler {
  return (request, response, next) =>
    isStranger(response) && Number(request.headers["content-length"] ?? 0) > STRANGERS_BODY_BYTES
      ? refuse(response, 401, "Sign in first: nothing of this was taken.")
      : next();
}

/** Requests of one address that may be under way at once where the desk is shared: a household's phones and tabs, with room. */
const MOST_AT_ONCE = Number(process.env["BAROMETRON_MOST_AT_ONCE"] ?? 300);

/** Turns away what one address asks while very many of its requests are still under way, slow or streams. */
export function atOnce(most = MOST_AT_ONCE): RequestHandler {
  const underWay = new Map<string, number>();
  return (request, response, next) => {
    const address = request.ip ?? "unknown";
    const count = (underWay.get(address) ?? 0) + 1;
    if (count > most)
      return refuse(response, 503, "Too much is being asked for at once: try again in a moment.");
    underWay.set(address, count);
    response.once("close", () => {
      const left = (underWay.get(address) ?? 1) - 1;
      if (left > 0) underWay.set(address, left);
      else underWay.delete(address);
    });
    next();
  };
}

/** A page read by a link: its letters, styles and pictures lie inside it, and nothing of it runs. */
const sharedHeaders = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'none'"],
      styleSrc: ["'unsafe-inline'"],
      imgSrc: ["data:"],
      fontSrc: ["data:"],
      baseUri: ["'none'"],
      formAction: ["'none'"],
      frameAncestors: ["'none'"],
    },
  },
  strictTransportSecurity: { maxAge: YEAR_S, includeSubDomains: false },
  crossOriginEmbedderPolicy: false,
  referrerPolicy: false,
});

/** Security headers; scripts run only with this response's nonce. */
export function headers(shared = false): RequestHandler {
  const own = helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", (_request, response) => `'nonce-${(response as Response).locals["nonce"]}'`],
        styleSrc: ["'self'"],
        styleSrcAttr: ["'unsafe-inline'"],
        imgSrc: ["'self'", "data:"],
        fontSrc: ["'self'", "data:"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: shared ? { maxAge: YEAR_S, includeSubDomains: false } : false,
    crossOriginEmbedderPolicy: false,
    referrerPolicy: { policy: "same-origin" },
  });
  return (request, response, next) =>
    (request.path.startsWith("/shared/") ? sharedHeaders : own)(request, response, next);
}
