import { href, Form, useLocation } from "react-router";
import { useSystem } from "#ui/system";

/** Miles or kilometres, kept for the next visit. */
export function UnitSwitch() {
  const system = useSystem();
  const { pathname, search } = useLocation();
  return (
    <Form method="post" action={href("/units")} className="flex gap-1" aria-label="Units">
      <input type="hidden" name="back" value={pathname + search} />
      {(["imperial", "metric"] as const).map((each) => (
        <button
          key={each}
          name="system"
          value={each}
          aria-pressed={system === each}
          aria-label={each === "imperial" ? "Miles and pounds" : "Kilometres and kilograms"}
          className={`min-h-9 flex-1 rounded-sheet border px-2 text-sm ${system === each ? "border-spruce bg-spruce font-bold text-onspruce" : "border-rule bg-sheet text-ink"}`}
        >
          {each === "imperial" ? "mi" : "km"}
        </button>
      ))}
    </Form>
  );
}
