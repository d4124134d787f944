import { useRouteLoaderData } from "react-router";

interface Who {
  readonly kind: "machine" | "person" | "phone" | "nobody";
  readonly name: string;
}
const HERE: Who = { kind: "machine", name: "" };

/** Who the page is for: whoever sits at this machine, a person by name, or a phone in the field. */
export function useWho(): Who {
  const root = useRouteLoaderData("root") as { readonly who?: Who } | undefined;
  return root?.who ?? HERE;
}
