import { connect } from "#db/client";
import { findUserNamed, forgetPerson, invite, listDesks, listMembers } from "#db/people/people";
import { FIRST_DESK } from "#db/schema";
import { withDesk } from "./backup.ts";
import { say } from "./say.ts";
import { sharedAddress } from "./share.ts";

const RESET_HOURS = 2;

/** Who belongs to the desks of this machine; a link that sets a passphrase anew, or lets an owner in. */
export async function people([what, ...words]: readonly string[]): Promise<number> {
  return withDesk(({ url }) => atDesk(url, what, words));
}

async function atDesk(url: string, what: string | undefined, words: readonly string[]): Promise<number> {
  const { db, close } = connect(url, 1);
  const address = sharedAddress() ?? "https://the-desk";
  try {
    if (what === undefined) {
      for (const desk of await listDesks(db)) {
        say(desk.name || "the first desk");
        for (const { name, role } of await listMembers(db, desk.id)) say(`  ${role.padEnd(7)} ${name}`);
      }
      return 0;
    }
    if (what === "owner") {
      const secret = await invite(db, { deskId: FIRST_DESK, role: "owner", hours: RESET_HOURS });
      say(`Lets one owner in, within ${RESET_HOURS} hours: ${address}/invited/${secret}`);
      return 0;
    }
    const name = words.join(" ");
    const user = what === "reset" || what === "forget" ? await findUserNamed(db, name) : null;
    if (!user) {
      say(
        what === "reset" || what === "forget"
          ? `Nobody goes by “${name}”. ./barometron people lists them.`
          : `Type people, people owner, people reset NAME, or people forget NAME.`,
      );
      return 1;
    }
    if (what === "forget") {
      const problem = await forgetPerson(db, user.id);
      say(problem ?? `${user.name} is forgotten; what they wrote stays, by somebody who is gone.`);
      return problem ? 1 : 0;
    }
    const secret = await invite(db, {
      deskId: FIRST_DESK,
      role: "viewer",
      resetOf: user.id,
      hours: RESET_HOURS,
    });
    say(`Sets ${user.name}'s passphrase anew, within ${RESET_HOURS} hours: ${address}/invited/${secret}`);
    return 0;
  } finally {
    await close();
  }
}
