import { rmSync, writeFileSync } from "node:fs";
import { input, password } from "@inquirer/prompts";
import { authOver } from "#app/services/people/auth.server";
import { passphraseProblem } from "#app/services/people/passphrase.server";
import { sharingOf } from "#app/services/people/sharing.server";
import { connect } from "#db/client";
import { addMember, hasOwner, invite, signInAddress, voidInvitations } from "#db/people/people";
import { FIRST_DESK } from "#db/schema";
import { say } from "./say.ts";

const OWNER_HOURS = 24;
const LONGEST_NAME = 60;

/** Asks for one line; an answer that `problem` has a sentence about is asked for again. */
export interface Ask {
  name(problem: (typed: string) => string | null): Promise<string>;
  passphrase(problem: (typed: string) => string | null): Promise<string>;
}

const validated = (problem: (typed: string) => string | null) => (typed: string) => problem(typed) ?? true;

/** Asks on the terminal; null where nobody sits at one. */
export const askOnTerminal = (): Ask | null =>
  process.stdin.isTTY && process.stderr.isTTY
    ? {
        name: (problem) =>
          input(
            { message: "The desk has no owner yet. The name you go by:", validate: validated(problem) },
            { output: process.stderr },
          ),
        passphrase: (problem) =>
          password(
            { message: "A passphrase, 12 characters or more:", mask: true, validate: validated(problem) },
            { output: process.stderr },
          ),
      }
    : null;

/**
 * A desk without an owner gets its first one: asked on the terminal, or let in by a link where there is none.
 *
 * @param letIn file for that link: what is printed ends in a journal that others read
 */
export async function firstOwner(
  databaseUrl: string,
  publicUrl: string,
  ask: Ask | null,
  letIn: string,
): Promise<void> {
  const { db, close } = connect(databaseUrl, 1);
  try {
    if (await hasOwner(db, FIRST_DESK)) return rmSync(letIn, { force: true });
    await voidInvitations(db, FIRST_DESK);
    if (!ask) {
      const secret = await invite(db, { deskId: FIRST_DESK, role: "owner", hours: OWNER_HOURS });
      writeFileSync(letIn, `${publicUrl}/invited/${secret}\n`, { mode: 0o600 });
      say(
        "The desk has no owner yet. The link that lets the first one in, within a day, is in a file of yours alone:",
      );
      say(`  ${letIn}`);
      return;
    }
    const typed = await ask.name((name) =>
      name.trim() && name.length <= LONGEST_NAME
        ? null
        : `Type the name you go by, up to ${LONGEST_NAME} characters.`,
    );
    const name = typed.trim();
    const passphrase = await ask.passphrase((words) => passphraseProblem(words, name));
    const auth = authOver(db, sharingOf(process.env)!);
    const { user } = await auth.api.signUpEmail({
      body: { name, email: signInAddress(name), password: passphrase },
    });
    await addMember(db, FIRST_DESK, user.id, "owner");
    say(`${name} owns the desk: sign in at ${publicUrl}/sign-in`);
  } finally {
    await close();
  }
}
