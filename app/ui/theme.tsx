import { useEffect, useSyncExternalStore } from "react";
import { useRouteLoaderData } from "react-router";
import { themeCookie, themeIn, type Theme } from "#app/ui/themeCookie";

/** The theme as the server sent it. */
export function useSentTheme(): Theme {
  const root = useRouteLoaderData<{ theme?: Theme }>("root");
  return root?.theme ?? "system";
}

const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const chosen = () => themeIn(document.cookie);
const DARK = "(prefers-color-scheme: dark)";
const isDark = () => window.matchMedia(DARK).matches;

function subscribeDark(listener: () => void): () => void {
  const query = window.matchMedia(DARK);
  query.addEventListener("change", listener);
  return () => query.removeEventListener("change", listener);
}

/** Day or dusk, for eyes used to the dark; kept for the next visit. */
export function DuskSwitch({ className = "" }: { readonly className?: string }) {
  const sent = useSentTheme();
  const theme = useSyncExternalStore(subscribe, chosen, () => sent);
  const dark = useSyncExternalStore(subscribeDark, isDark, () => false);
  const isDusk = theme === "dusk" || (theme === "system" && dark);
  useEffect(() => {
    // A page kept for want of a network may be of another evening.
    document.documentElement.dataset["theme"] = theme;
  }, [theme]);
  return (
    <button
      type="button"
      aria-pressed={isDusk}
      className={className}
      onClick={() => {
        document.cookie = themeCookie(isDusk ? "day" : "dusk");
        listeners.forEach((listener) => listener());
      }}
    >
      {isDusk ? "Day" : "Dusk"}
    </button>
  );
}
