import { randomUUID } from "node:crypto";
import type { RequestHandler } from "express";
import { pino } from "pino";
import { collectDefaultMetrics, Histogram, Registry } from "prom-client";

const STDERR = 2;

/** The server's log: a line of JSON each, with nothing of what people typed and nobody's address. On one's own machine only what broke. */
export const log = pino(
  {
    base: null,
    level: process.env["BAROMETRON_LOG"] ?? (process.env["PUBLIC_URL"] ? "info" : "error"),
    timestamp: pino.stdTimeFunctions.isoTime,
  },
  pino.destination(STDERR),
);

const register = new Registry();
collectDefaultMetrics({ register });
const seconds = new Histogram({
  name: "barometron_request_seconds",
  help: "How long requests took, by station and kind of answer.",
  labelNames: ["station", "method", "status"],
  buckets: [0.01, 0.05, 0.1, 0.3, 1, 3, 10],
  registers: [register],
});

/** Addresses that hold a secret are not written down. */
const SECRETS = /^\/(invited|pair|shared)\/[^/.]+/;
const STATIONS = new Set([
  "bikes",
  "plan",
  "ride",
  "strip",
  "compare",
  "sheet",
  "settings",
  "shared",
  "auth",
  "assets",
]);

/** What a request was for, without what is secret in it. */
export const toldPath = (path: string): string => path.replace(SECRETS, "/$1/…");

/** The part of the desk an address belongs to, for counting. */
export const stationOf = (path: string): string => {
  const first = path.split("/")[1]?.replace(/\.data$/, "") ?? "";
  return STATIONS.has(first) ? first : "other";
};

/** Gives each request a number of its own, and notes what came of it. */
export function watched(): RequestHandler {
  return (request, response, next) => {
    const id = randomUUID();
    const began = process.hrtime.bigint();
    response.locals["requestId"] = id;
    response.setHeader("X-Request-Id", id);
    response.once("finish", () => {
      const took = Number(process.hrtime.bigint() - began) / 1e9;
      const { method, path } = request;
      const status = response.statusCode;
      seconds.observe({ station: stationOf(path), method, status: `${Math.floor(status / 100)}xx` }, took);
      const level = path.startsWith("/assets/") ? "debug" : "info";
      log[level]({ id, method, path: toldPath(path), status, ms: Math.round(took * 1000) });
    });
    next();
  };
}

/** Figures for a monitor, in Prometheus' text. */
export const metrics: RequestHandler = async (_request, response) => {
  response.type(register.contentType).send(await register.metrics());
};
