import { z } from "zod";

/** How a desk is reached by others; null on one's own machine. */
export interface Sharing {
  /** Where it is reached, without a slash at the end. */
  readonly publicUrl: string;
  readonly host: string;
  readonly secret: string;
  /** Addresses of proxies in front whose word about the asker is taken. */
  readonly trustedProxies: readonly string[];
}

const urlSchema = z.url({
  protocol: /^https$/,
  error: "PUBLIC_URL is an https address, for example https://desk.example.",
});

/**
 * What the environment says of sharing: PUBLIC_URL, BAROMETRON_SECRET, TRUSTED_PROXIES.
 *
 * @throws with what to type where it is half said
 */
export function sharingOf(env: Readonly<Record<string, string | undefined>>): Sharing | null {
  const address = env["PUBLIC_URL"];
  if (!address) return null;
  const url = new URL(urlSchema.parse(address));
  const secret = env["BAROMETRON_SECRET"] ?? "";
  if (secret.length < 32)
    throw new Error(
      "Sharing needs BAROMETRON_SECRET, 32 characters and more; ./barometron start --share makes one.",
    );
  return {
    publicUrl: url.origin,
    host: url.host,
    secret,
    trustedProxies: (env["TRUSTED_PROXIES"] ?? "loopback").split(",").map((each) => each.trim()),
  };
}
