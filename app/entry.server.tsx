import { PassThrough } from "node:stream";
import { createReadableStreamFromReadable } from "@react-router/node";
import { isbot } from "isbot";
import { renderToPipeableStream, type RenderToPipeableStreamOptions } from "react-dom/server";
import { ServerRouter, type EntryContext, type RouterContextProvider } from "react-router";
import { decimalOf } from "#app/ui/readersLanguage";
import { drawnFor } from "#app/services/reader.server";
import { nonceContext } from "#app/context";
import { failureOf, logLine } from "../server/failures";
import { NonceContext } from "#ui/nonce";

const ABORT_MS = 10_000;

export default function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  routerContext: EntryContext,
  context: RouterContextProvider,
): Promise<Response> {
  const nonce = context.get(nonceContext) || undefined;
  const bot = isbot(request.headers.get("user-agent") ?? "");
  const ready: keyof RenderToPipeableStreamOptions = bot ? "onAllReady" : "onShellReady";
  const draw = (resolve: (page: Response) => void, reject: (reason: unknown) => void) => {
    let code = status;
    const { pipe, abort } = renderToPipeableStream(
      <NonceContext value={nonce}>
        <ServerRouter context={routerContext} url={request.url} {...(nonce ? { nonce } : {})} />
      </NonceContext>,
      {
        ...(nonce ? { nonce } : {}),
        [ready]() {
          const body = new PassThrough();
          headers.set("Content-Type", "text/html; charset=utf-8");
          resolve(new Response(createReadableStreamFromReadable(body), { status: code, headers }));
          pipe(body);
        },
        onShellError: reject,
        onError(error: unknown) {
          code = 500;
          console.error(logLine(error));
        },
      },
    );
    setTimeout(abort, ABORT_MS).unref();
  };
  return drawnFor(decimalOf(request), () => new Promise(draw));
}

/** Failures of loaders and actions are said by the guard around them; a request that was left is none. */
export function handleError(error: unknown, { request }: { readonly request: Request }): void {
  if (request.signal.aborted || failureOf(error)) return;
  console.error(logLine(error));
}
