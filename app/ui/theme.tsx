import { useEffect, useSyncExternalStore } from "react";
import { useRouteLoaderData } from "react-router";
import { themeCookie, themeIn, type Theme } from "#app/ui/themeCookie";

/** The theme as the server sent it. */
export function useSentTheme(): Theme {
  const root = useRouteLoaderData<{ theme?: Theme }>("root");
  return root?.theme ?? "day";
}

const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const chosen = () => themeIn(document.cookie);

/** Day or dusk, for eyes used to the dark; kept for the next visit. */
export function DuskSwitch({ className = "" }: { readonly className?: string }) {
  const sent = useSentTheme();
  const theme = useSyncExternalStore(subscribe, chosen, () => sent);
  useEffect(() => {
    // A page kept for want of a network may be of another evening.
    document.documentElement.dataset["theme"] = theme;
  }, [theme]);
  return (
    <button
      type="button"
      aria-pressed={theme === "dusk"}
      className={className}
      onClick={() => {
        document.cookie = themeCookie(theme === "dusk" ? "day" : "dusk");
        listeners.forEach((listener) => listener());
      }}
    >
      {theme === "dusk" ? "Day" : "Dusk"}
    </button>
  );
}
