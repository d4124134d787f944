import "./app.css";
import { useContext, useEffect, type ReactNode } from "react";
import {
  href,
  isRouteErrorResponse,
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  type ShouldRevalidateFunctionArgs,
} from "react-router";
import { NonceContext } from "#ui/nonce";
import { useSentDecimal } from "#ui/system";
import { useSentTheme } from "#ui/theme";
import { decimalOf, numbersChosen } from "#app/ui/readersLanguage";
import { isAtDemo, mayLookAround } from "#app/services/people/demo.server";
import { mayDo, principalContext } from "#app/services/people/principal";
import { systemOf } from "#app/ui/systemCookie";
import { themeIn } from "#app/ui/themeCookie";
import type { Route } from "./+types/root";

export function loader({ request, context }: Route.LoaderArgs) {
  const principal = context.get(principalContext);
  return {
    who: {
      kind: principal.kind,
      name: principal.kind === "person" ? principal.name : "",
      mayChange: mayDo("editor", principal),
      atDemo: isAtDemo(principal),
      mayLookAround: mayLookAround(principal),
    },
    system: systemOf(request),
    decimal: decimalOf(request),
    numbers: numbersChosen(request),
    theme: themeIn(request.headers.get("Cookie") ?? ""),
  };
}

/** Units and theme change only where a person changes them; with no network nothing is asked for in vain. */
export function shouldRevalidate({ formAction }: ShouldRevalidateFunctionArgs) {
  return formAction !== undefined;
}

export function Layout({ children }: { children: ReactNode }) {
  const nonce = useContext(NonceContext);
  const theme = useSentTheme();
  const decimal = useSentDecimal();
  return (
    <html lang="en" data-theme={theme} data-decimal={decimal} suppressHydrationWarning>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <link rel="icon" href="/icon.svg" type="image/svg+xml" />
        <link rel="apple-touch-icon" href="/icon-180.png" />
        <link rel="manifest" href="/manifest.webmanifest" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration {...(nonce ? { nonce } : {})} />
        <Scripts {...(nonce ? { nonce } : {})} />
      </body>
    </html>
  );
}

export default function Root() {
  // From here on the page answers: a mark for whoever waits for that.
  useEffect(() => {
    document.documentElement.dataset["alive"] = "";
    void import("./slanted.css");
  }, []);
  return <Outlet />;
}

/** What a person sees when something broke: a sentence and a way back, never a stack. */
export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const known = isRouteErrorResponse(error) && typeof error.data === "string" && error.data !== "";
  return (
    <main className="mx-auto max-w-xl p-8">
      <title>Barometron</title>
      <h1>{isRouteErrorResponse(error) && error.status === 404 ? "Not here" : "Something broke"}</h1>
      <p className="my-4">
        {known
          ? error.data
          : "Nothing was changed. Go back and try again; the log of the start command says more."}
      </p>
      <a className="button" href={href("/")}>
        Back to Today
      </a>
    </main>
  );
}
