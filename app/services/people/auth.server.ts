import { passkey } from "@better-auth/passkey";
import { hash, verify } from "@node-rs/argon2";
import { betterAuth } from "better-auth";
import { drizzleAdapter } from "better-auth/adapters/drizzle";
import type { Database } from "#db/client";
import * as tables from "#db/people/schema";
import type { Sharing } from "./sharing.server";

/** A session lasts this long after it was last used, s; once a day it is renewed. */
const SESSION_S = 14 * 86_400;
const RENEWED_S = 86_400;
export const LEAST_PASSPHRASE = 12;
const LONGEST_PASSPHRASE = 200;

/** Argon2id with 19 MiB, two passes and one lane (OWASP, password storage). */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Sign-in by passphrase and passkey over the people's tables. */
export function authOver(db: Database, { publicUrl, host, secret }: Sharing) {
  return betterAuth({
    appName: "Barometron",
    baseURL: publicUrl,
    basePath: "/auth",
    secret,
    trustedOrigins: [publicUrl],
    database: drizzleAdapter(db, { provider: "pg", schema: tables }),
    emailAndPassword: {
      enabled: true,
      // Coming in signs in by itself: one session, not two.
      autoSignIn: false,
      minPasswordLength: LEAST_PASSPHRASE,
      maxPasswordLength: LONGEST_PASSPHRASE,
      password: {
        hash: (passphrase) => hash(passphrase, ARGON),
        verify: ({ hash: kept, password }) => verify(kept, password),
      },
    },
    session: { expiresIn: SESSION_S, updateAge: RENEWED_S },
    plugins: [passkey({ rpID: host.replace(/:\d+$/, ""), rpName: "Barometron", origin: publicUrl })],
    // Attempts are counted by the sign-in page itself, over all processes.
    rateLimit: { enabled: false },
    telemetry: { enabled: false },
    advanced: {
      cookiePrefix: "barometron",
      useSecureCookies: true,
      defaultCookieAttributes: { sameSite: "lax", httpOnly: true, secure: true },
      // Whence somebody came is not kept.
      ipAddress: { disableIpTracking: true },
    },
    logger: { disabled: true },
  });
}

export type Auth = ReturnType<typeof authOver>;
