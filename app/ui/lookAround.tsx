import { Form, href } from "react-router";
import { useWho } from "#app/ui/who";

/** The way to the demo desk, for whoever may look around it and is not there. */
export function LookAround({ className }: { readonly className: string }) {
  const { atDemo, mayLookAround } = useWho();
  if (atDemo || !mayLookAround) return null;
  return (
    <Form method="post" action={href("/demo")} className={className}>
      <button name="intent" value="enter" className="button">
        Look around the demo desk
      </button>
      <span className="ml-3 text-sm text-quiet">Five invented bikes and their tests, apart from yours.</span>
    </Form>
  );
}
