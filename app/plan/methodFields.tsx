import { LiveField } from "#ui/forms/liveField";

/** How a method tests, and what it compares. */
export function MethodFields({ within = "" }: { readonly within?: string }) {
  return (
    <>
      {["drive", "until", "share", "everyM", "atQuarters", "taken", "ends"].map((key) => (
        <LiveField key={key} name={within + key} />
      ))}
      {["a", "b", "pairs", "wantedWhPerM"].map((key) => (
        <LiveField key={key} name={`${within}compare.${key}`} />
      ))}
    </>
  );
}

/** What is held, made ready and brought. */
export function MethodLists({ within = "" }: { readonly within?: string }) {
  return ["hold", "ready", "bring", "note"].map((key) => <LiveField key={key} name={within + key} />);
}
