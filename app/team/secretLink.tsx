import { useState } from "react";
import { useHydrated } from "#ui/hydrated";
import { ScanCode } from "#ui/scanCode";

/** A link that is shown once, to be copied or scanned. */
export function SecretLink({ link, line }: { readonly link: string; readonly line: string }) {
  const [copied, setCopied] = useState(false);
  const alive = useHydrated();
  return (
    <div className="sheet grid gap-3 p-4">
      <p className="text-sm text-quiet">{line}</p>
      <input
        readOnly
        value={link}
        aria-label="The link"
        className="input"
        onFocus={(event) => event.target.select()}
      />
      <div className="flex flex-wrap items-end gap-4">
        <ScanCode address={link} label="The link as a code to scan" />
        <button
          type="button"
          className="button"
          disabled={!alive}
          onClick={() => void navigator.clipboard.writeText(link).then(() => setCopied(true))}
        >
          {copied ? "Copied" : "Copy"}
        </button>
      </div>
    </div>
  );
}
