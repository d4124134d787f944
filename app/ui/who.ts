import { useRouteLoaderData } from "react-router";

interface Who {
  readonly kind: "machine" | "person" | "phone" | "nobody";
  readonly name: string;
  /** Whether they change what stands at the desk, or read it only. */
  readonly mayChange: boolean;
  /** Whether they are at the demo desk, and whether they may go there. */
  readonly atDemo: boolean;
  readonly mayLookAround: boolean;
}
const HERE: Who = { kind: "machine", name: "", mayChange: true, atDemo: false, mayLookAround: true };

/** Who the page is for: whoever sits at this machine, a person by name, or a phone in the field. */
export function useWho(): Who {
  const root = useRouteLoaderData("root") as { readonly who?: Who } | undefined;
  return root?.who ?? HERE;
}
