import { useState } from "react";
import { useHydrated } from "#ui/hydrated";

const NO = "The device did not give a key. The passphrase does as well.";

/** The browser's side of passkeys, fetched when it is asked for. */
async function passkeys() {
  const [{ createAuthClient }, { passkeyClient }] = await Promise.all([
    import("better-auth/client"),
    import("@better-auth/passkey/client"),
  ]);
  return createAuthClient({ basePath: "/auth", plugins: [passkeyClient()] });
}

/** A button that asks the device for a key. */
function KeyButton({
  label,
  ask,
  onDone,
}: {
  label: string;
  ask: () => Promise<boolean>;
  onDone: () => void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const alive = useHydrated();
  const press = async () => {
    setBusy(true);
    setProblem(null);
    const done = await ask().catch(() => false);
    setBusy(false);
    if (done) onDone();
    else setProblem(NO);
  };
  return (
    <div>
      <button type="button" className="button" disabled={!alive || busy} onClick={() => void press()}>
        {label}
      </button>
      {problem ? (
        <p role="alert" className="mt-1 text-sm text-rust">
          {problem}
        </p>
      ) : null}
    </div>
  );
}

/** Signing in with a key of this device. */
export function PasskeySignIn({ to }: { readonly to: string }) {
  return (
    <KeyButton
      label="Sign in with this device's passkey"
      ask={async () => {
        const { data } = await (await passkeys()).signIn.passkey();
        return Boolean(data);
      }}
      onDone={() => window.location.assign(to.startsWith("/") && !to.startsWith("//") ? to : "/")}
    />
  );
}

/** Keeping a key of this device for the next time. */
export function PasskeyAdd({ onDone }: { readonly onDone: () => void }) {
  return (
    <KeyButton
      label="Add a passkey of this device"
      ask={async () => {
        const answer = await (
          await passkeys()
        ).passkey.addPasskey({ name: navigator.platform || "a device" });
        return !answer?.error;
      }}
      onDone={onDone}
    />
  );
}
