import { randomBytes } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { connect } from "#db/client";
import { dropDatabase, withClient } from "#db/backup/databases";
import { invite, type Role } from "#db/people/people";
import { FIRST_DESK } from "#db/schema";
import { caddyBefore } from "../../command/caddy";
import { ensureDatabase } from "../../command/cluster";
import { freePort } from "../../command/ports";
import { startServerProcess } from "../trials/serverProcess";

/** A copy of the demo desk that is shared over HTTPS, on a name of loopback's own. */
export interface SharedDesk {
  /** Where it is reached. */
  readonly at: string;
  /** The server itself, behind what speaks HTTPS. */
  readonly inner: string;
  readonly trustUrl: string;
  readonly databaseUrl: string;
  /** A link that lets somebody in. */
  inviteAs(role: Role, hours?: number): Promise<string>;
  /** What the server wrote. */
  said(): string;
  end(): Promise<void>;
}

/** Sets it up: a database, HTTPS in front, the server behind. */
export async function shareDemo(host = "localhost"): Promise<SharedDesk> {
  const address = process.env["DESK_ADDRESS"]!;
  const name = `shared_${process.pid}_${randomBytes(3).toString("hex")}`;
  await ensureDatabase(address, name, process.env["DESK_TEMPLATE"]);
  const databaseUrl = `${address}/${name}`;
  const folder = mkdtempSync(join(tmpdir(), "barometron-shared-"));
  const port = await freePort(4700);
  const front = await caddyBefore({
    ...{ host, port, folder },
    httpsPort: await freePort(4743),
    trustPort: await freePort(4780),
  });
  const server = await startServerProcess(databaseUrl, port, {
    PUBLIC_URL: front.publicUrl,
    BAROMETRON_SECRET: randomBytes(32).toString("hex"),
    BAROMETRON_TRUST_URL: front.trustUrl ?? "",
  });
  const connection = connect(databaseUrl, 2);
  return {
    ...{ at: front.publicUrl, inner: server.address, trustUrl: front.trustUrl ?? "", databaseUrl },
    inviteAs: async (role, hours = 1) =>
      `${front.publicUrl}/invited/${await invite(connection.db, { deskId: FIRST_DESK, role, hours })}`,
    said: () => server.said(),
    end: async () => {
      await connection.close();
      await server.kill();
      await front.stop();
      rmSync(folder, { recursive: true, force: true });
      await withClient(`${address}/postgres`, (admin) => dropDatabase(admin, name));
    },
  };
}
