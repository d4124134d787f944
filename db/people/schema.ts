import {
  bigint,
  bigserial,
  boolean,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from "drizzle-orm/pg-core";
import { desk, deskId } from "../schema.ts";

/** Who may come in, where a desk is shared. On one's own machine all of it stays empty. */
const moment = (name: string) => timestamp(name, { withTimezone: true });

/** A person who signs in. */
export const user = pgTable("user", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  /** The name one signs in by, made an address that exists nowhere. */
  email: text("email").notNull().unique(),
  emailVerified: boolean("email_verified").notNull().default(false),
  image: text("image"),
  createdAt: moment("created_at").notNull().defaultNow(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
});

export const session = pgTable(
  "session",
  {
    id: text("id").primaryKey(),
    expiresAt: moment("expires_at").notNull(),
    token: text("token").notNull().unique(),
    createdAt: moment("created_at").notNull().defaultNow(),
    updatedAt: moment("updated_at").notNull().defaultNow(),
    ipAddress: text("ip_address"),
    userAgent: text("user_agent"),
    userId: text("user_id")
      .notNull()
      .references(() => user.id, { onDelete: "cascade" }),
  },
  (table) => [index("session_by_user").on(table.userId)],
);

/** How a person proves who they are: the hash of a passphrase. */
export const account = pgTable(
  "account",
  {
    id: text("id").primaryKey(),
    accountId: text("account_id").notNull(),
    providerId: text("provider_id").notNull(),
    userId: text("user_id")
      .notNull()
      .references(() => user.id, { onDelete: "cascade" }),
    accessToken: text("access_token"),
    refreshToken: text("refresh_token"),
    idToken: text("id_token"),
    accessTokenExpiresAt: moment("access_token_expires_at"),
    refreshTokenExpiresAt: moment("refresh_token_expires_at"),
    scope: text("scope"),
    password: text("password"),
    createdAt: moment("created_at").notNull().defaultNow(),
    updatedAt: moment("updated_at").notNull().defaultNow(),
  },
  (table) => [index("account_by_user").on(table.userId)],
);

export const verification = pgTable("verification", {
  id: text("id").primaryKey(),
  identifier: text("identifier").notNull(),
  value: text("value").notNull(),
  expiresAt: moment("expires_at").notNull(),
  createdAt: moment("created_at").notNull().defaultNow(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
});

/** A key that a device holds in place of a passphrase. */
export const passkey = pgTable(
  "passkey",
  {
    id: text("id").primaryKey(),
    name: text("name"),
    publicKey: text("public_key").notNull(),
    userId: text("user_id")
      .notNull()
      .references(() => user.id, { onDelete: "cascade" }),
    credentialID: text("credential_id").notNull(),
    counter: integer("counter").notNull(),
    deviceType: text("device_type").notNull(),
    backedUp: boolean("backed_up").notNull(),
    transports: text("transports"),
    createdAt: moment("created_at").defaultNow(),
    aaguid: text("aaguid"),
  },
  (table) => [index("passkey_by_user").on(table.userId)],
);

/** What a person may do at a desk. A person taken off a desk keeps their name on what they wrote. */
export const member = pgTable(
  "member",
  {
    deskId: uuid("desk_id")
      .notNull()
      .references(() => desk.id),
    userId: text("user_id")
      .notNull()
      .references(() => user.id, { onDelete: "cascade" }),
    role: text("role").notNull(),
    since: moment("since").notNull().defaultNow(),
  },
  (table) => [
    primaryKey({ columns: [table.deskId, table.userId] }),
    index("member_by_user").on(table.userId),
  ],
);

/** A link that lets one person in, once. Kept as the hash of its secret. */
export const invitation = pgTable(
  "invitation",
  {
    id: uuid("id").primaryKey(),
    deskId: deskId(),
    secretHash: text("secret_hash").notNull().unique(),
    role: text("role").notNull(),
    /** Whom it is for, as the owner calls them; of a reset, the user whose passphrase is set anew. */
    name: text("name").notNull().default(""),
    resetOf: text("reset_of").references(() => user.id, { onDelete: "cascade" }),
    madeAt: moment("made_at").notNull().defaultNow(),
    expiresAt: moment("expires_at").notNull(),
    usedAt: moment("used_at"),
  },
  (table) => [index("invitation_by_desk").on(table.deskId), index("invitation_by_reset").on(table.resetOf)],
);

/** A phone that may add to the logs of chosen tests, and nothing else. */
export const phone = pgTable(
  "phone",
  {
    id: uuid("id").primaryKey(),
    deskId: deskId(),
    name: text("name").notNull(),
    /** Of the code on the screen until it is scanned, then of the phone's own secret. */
    secretHash: text("secret_hash").notNull().unique(),
    /** Tests it may add to; empty for every test of the desk. */
    tests: uuid("tests").array().notNull(),
    madeAt: moment("made_at").notNull().defaultNow(),
    /** Until when the code can be scanned. */
    codeUntil: moment("code_until").notNull(),
    pairedAt: moment("paired_at"),
    seenAt: moment("seen_at"),
    /** Entries that it said wait on it. */
    waiting: integer("waiting").notNull().default(0),
    takenBackAt: moment("taken_back_at"),
  },
  (table) => [index("phone_by_desk").on(table.deskId)],
);

/** A link by which anybody reads one page. */
export const shareLink = pgTable(
  "share_link",
  {
    id: uuid("id").primaryKey(),
    deskId: deskId(),
    secretHash: text("secret_hash").notNull().unique(),
    /** Test, comparison (a sheet of several tests) or edition. */
    kind: text("kind").notNull(),
    targetId: uuid("target_id").notNull(),
    note: text("note").notNull().default(""),
    madeAt: moment("made_at").notNull().defaultNow(),
    expiresAt: moment("expires_at").notNull(),
    takenBackAt: moment("taken_back_at"),
    reads: integer("reads").notNull().default(0),
    lastReadAt: moment("last_read_at"),
  },
  (table) => [index("share_link_by_desk").on(table.deskId), index("share_link_by_target").on(table.targetId)],
);

/** How often something was tried lately, over all processes of the server. */
export const rateLimit = pgTable("rate_limit", {
  key: text("key").primaryKey(),
  points: integer("points").notNull().default(0),
  /** When it is forgotten, ms since the epoch. */
  expire: bigint("expire", { mode: "number" }),
});

/** Who changed what: written by the database itself with every change, and never changed or dropped. */
export const trail = pgTable(
  "trail",
  {
    id: bigserial("id", { mode: "number" }).primaryKey(),
    deskId: deskId(),
    at: moment("at").notNull().defaultNow(),
    /** A user's id, `phone/` and a phone's id, or empty for this machine. */
    actor: text("actor").notNull(),
    tableName: text("table_name").notNull(),
    rowId: text("row_id").notNull(),
    what: text("what").notNull(),
    /** Columns that changed, as they were and as they became. */
    before: jsonb("before").$type<Readonly<Record<string, unknown>>>(),
    after: jsonb("after").$type<Readonly<Record<string, unknown>>>(),
  },
  (table) => [
    index("trail_by_row").on(table.tableName, table.rowId),
    index("trail_by_desk").on(table.deskId, table.id),
  ],
);
