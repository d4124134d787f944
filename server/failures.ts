import { setTimeout } from "node:timers/promises";
import { data } from "react-router";
import { z } from "zod";
import { Busy } from "#app/services/compute/pool.server";
import { isReckoning } from "#app/services/patience.server";
import { UnreadableRow } from "#db/unreadable";
import { log } from "./watch.ts";

/** What a failure is to the person who asked: a status, and a sentence that says what to do. */
export interface Failure {
  readonly status: number;
  readonly sentence: string;
}

/** PostgreSQL's codes for what a request asked wrongly. */
const REFUSED: ReadonlyMap<string, Failure> = new Map([
  ["22P02", { status: 404, sentence: "There is nothing at this address." }],
  [
    "23503",
    { status: 404, sentence: "What this refers to is no longer there: open the page again and choose anew." },
  ],
  [
    "22021",
    { status: 400, sentence: "There is a character in this that is no text: type it again without." },
  ],
  [
    "22P05",
    { status: 400, sentence: "There is a character in this that is no text: type it again without." },
  ],
  ["22003", { status: 400, sentence: "A number in this is too large: check its unit." }],
  ["22007", { status: 400, sentence: "A date in this is none: type it as 2026-10-18." }],
  ["22008", { status: 400, sentence: "A date in this is none: type it as 2026-10-18." }],
  ["23514", { status: 400, sentence: "A value in this is outside what can be." }],
  ["23502", { status: 400, sentence: "Something is missing in this." }],
  ["23505", { status: 409, sentence: "This is there already." }],
]);

const AWAY: Failure = {
  status: 503,
  sentence: "The database does not answer just now. Nothing was changed: try again in a moment.",
};
const BUSY: Failure = {
  status: 503,
  sentence: "Too much is being asked for at once. Nothing was changed: try again in a moment.",
};

/** Codes of a database that is away, restarting or overrun, or let two who met try again: PostgreSQL's classes 08, 40, 53, 57. */
const isAway = (code: string) =>
  /^(08|40|53|57)/.test(code) ||
  ["ECONNREFUSED", "ECONNRESET", "ENOTFOUND", "EPIPE", "ETIMEDOUT", "3D000"].includes(code);

/** An error and what lies beneath it, outermost first. */
function chainOf(error: unknown): readonly unknown[] {
  const chain: unknown[] = [];
  for (let at = error; at && chain.length < 8; at = (at as { cause?: unknown }).cause) chain.push(at);
  return chain;
}

/** What is known of a failure; null for one that nobody foresaw. */
export function failureOf(error: unknown): Failure | null {
  for (const each of chainOf(error)) {
    if (each instanceof UnreadableRow)
      return {
        status: 422,
        sentence: `What is stored here cannot be read: “${each.row.label}”. ${each.row.sentences.join(" ")} Nothing of it is lost; the command ./barometron check sets it aside.`,
      };
    if (each instanceof Busy) return BUSY;
    if (each instanceof z.ZodError)
      return { status: 400, sentence: each.issues[0]?.message ?? "This cannot be kept." };
    const code = String((each as { code?: unknown }).code ?? "");
    const refused = REFUSED.get(code);
    if (refused) return refused;
    if (isAway(code)) return AWAY;
    const message = each instanceof Error ? each.message : "";
    if (/Connection terminated|timeout exceeded when trying to connect|Cannot use a pool after/.test(message))
      return AWAY;
    // A body that is no form, or broke off.
    if (each instanceof TypeError && /FormData|form data|multipart|Content-Type/i.test(message))
      return { status: 400, sentence: "The form came in broken: send it again." };
  }
  return null;
}

/** An error as the log may hold it: what it is and where, without what the person typed. */
export function logLine(error: unknown): string {
  const lines = chainOf(error).map((each) => {
    if (!(each instanceof Error)) return String(each).slice(0, 200);
    const code = (each as { code?: unknown }).code;
    const message = each.message
      .split(/\nparams:/)[0]!
      .replace(/\s+/g, " ")
      .slice(0, 300);
    const detail = message.startsWith("Failed query") ? "a query failed" : message;
    const stack = (each.stack ?? "")
      .split("\n")
      .filter((line) => /^\s+at /.test(line))
      .slice(0, 6)
      .join("\n");
    return `${each.name}${code === undefined ? "" : ` ${String(code)}`}: ${detail}\n${stack}`;
  });
  return lines.join("\ncaused by ");
}

type Handler = (args: never) => unknown;

/** How long a download waits for what is still being calculated, and between two looks at it, ms. */
const LONGEST_WAIT_MS = 100_000;
const LOOK_MS = 400;

/** What a file is read from may still be calculated: a page says so and asks again, a download waits. */
const waiting =
  (handler: Handler): Handler =>
  async (args) => {
    const until = performance.now() + LONGEST_WAIT_MS;
    for (;;)
      try {
        return await handler(args);
      } catch (error) {
        if (!isReckoning(error)) throw error;
        if (performance.now() > until)
          throw new Response(`${BUSY.sentence}\n`, { status: 503, headers: { "Retry-After": "5" } });
        await setTimeout(LOOK_MS);
      }
  };

/** What stands before a loader or action: it lets a request through, or throws. */
export type Gate = (routeId: string, does: "read" | "write", args: never) => void;

/** A loader or action behind its gate, whose known failures are answered with their status and sentence instead of a 500. */
function guarded(handler: Handler, pass: (args: never) => void): Handler {
  return async (args) => {
    try {
      pass(args);
      return await handler(args);
    } catch (error) {
      if (error instanceof Response || isThrownData(error)) throw error;
      const failure = failureOf(error);
      if (!failure) {
        log.error(logLine(error));
        throw error;
      }
      throw data(failure.sentence, {
        status: failure.status,
        ...(failure.status === 503 && { headers: { "Retry-After": "2" } }),
      });
    }
  };
}

/** What `data()` makes, thrown on purpose. */
const isThrownData = (error: unknown) =>
  typeof error === "object" && error !== null && "type" in error && error.type === "DataWithResponseInit";

interface Built {
  readonly routes: Readonly<Record<string, { readonly module: object } | undefined>>;
}

/** The built routes with every loader and action guarded: none can be forgotten. */
export function guardRoutes<T extends Built>(built: T, gate: Gate = () => undefined): T {
  const routes = Object.fromEntries(
    Object.entries(built.routes).map(([id, route]) => {
      if (!route) return [id, route];
      const { loader: reads, action } = route.module as { loader?: Handler; action?: Handler };
      const loader = reads && !("default" in route.module) ? waiting(reads) : reads;
      return [
        id,
        {
          ...route,
          module: {
            ...route.module,
            ...(loader && { loader: guarded(loader, (args) => gate(id, "read", args)) }),
            ...(action && { action: guarded(action, (args) => gate(id, "write", args)) }),
          },
        },
      ];
    }),
  );
  return { ...built, routes };
}
