import { href, data, redirect } from "react-router";
import { z } from "zod";
import { dbContext } from "#app/context";
import { deskDay } from "#app/ui/clock.server";
import { madeId } from "#app/ui/network/once.server";
import { found } from "#app/ui/require.server";
import { afterChange, safePath, type Did } from "#app/ui/safePath";
import type { Database } from "#db/client";
import { ENTITY_KINDS, lockedRow, Refused, type EntityKind } from "#db/kinds";
import { MERGED, mergeEntities, type Merged } from "#db/merging";
import { archiveEntity, duplicateEntity, renameEntity } from "#db/tidying";
import { bringBack, deleteEntity } from "#db/trash";
import type { Route } from "./+types/actRoute";

const of = { kind: z.enum(ENTITY_KINDS as [EntityKind, ...EntityKind[]]), id: z.uuid() };
const askSchema = z.discriminatedUnion("intent", [
  z.object({ ...of, intent: z.enum(["archive", "restore", "duplicate", "delete"]) }),
  z.object({ ...of, intent: z.literal("rename"), name: z.string().trim() }),
  z.object({ ...of, kind: z.enum(MERGED), intent: z.literal("merge"), into: z.uuid() }),
]);
type Asked = z.infer<typeof askSchema>;

const GONE = "It is no longer there.";
const LONGEST_NAME = 120;

/** Where a record is seen or changed. */
async function pageOf(db: Database, kind: EntityKind, id: string): Promise<string> {
  const bikeId = String((await lockedRow(db, kind, id))?.["bikeId"]);
  const pages: Readonly<Record<EntityKind, () => string>> = {
    bike: () => href("/bikes/:bikeId/edit", { bikeId: id }),
    pack: () => href("/bikes/:bikeId/packs/:packId", { bikeId, packId: id }),
    setUp: () => href("/bikes/:bikeId/set-ups/:setUpId", { bikeId, setUpId: id }),
    rider: () => href("/bikes/riders/:riderId", { riderId: id }),
    instrument: () => href("/bikes/instruments/:instrumentId", { instrumentId: id }),
    bench: () => href("/bikes"),
    course: () => href("/plan/courses/:courseId", { courseId: id }),
    method: () => href("/plan/methods/:methodId", { methodId: id }),
    plan: () => href("/plan/:planId", { planId: id }),
    sweep: () => href("/compare/sweeps/:sweepId", { sweepId: id }),
    climb: () => href("/compare/climbs/:climbId", { climbId: id }),
    sheet: () => href("/sheet/:sheetId", { sheetId: id }),
    test: () => href("/strip/:testId", { testId: id }),
  };
  return pages[kind]();
}

/** What was done: the change, the page to go to, and the word for it. */
interface Done {
  readonly change: string | null;
  readonly to: string;
  readonly did: Did;
}

async function act(db: Database, asked: Asked, to: string, copy: string): Promise<Done> {
  const { kind, id } = asked;
  switch (asked.intent) {
    case "archive":
      return { change: await archiveEntity(db, kind, id), to, did: "archived" };
    case "restore":
      return { change: await bringBack(db, kind, id), to, did: "back" };
    case "delete":
      return { change: await deleteEntity(db, kind, id), to, did: "deleted" };
    case "duplicate": {
      const change = await duplicateEntity(db, kind, id, { copy, today: deskDay() });
      return { change, to: await pageOf(db, kind, copy), did: "copied" };
    }
    case "rename": {
      if (asked.name === "") throw new Refused("Type a name.");
      if (asked.name.length > LONGEST_NAME) throw new Refused(`A name holds ${LONGEST_NAME} characters.`);
      return { change: await renameEntity(db, kind, id, asked.name), to, did: "renamed" };
    }
    case "merge":
      return { change: await mergeEntities(db, kind as Merged, id, asked.into), to, did: "merged" };
  }
}

/** Renames, duplicates, merges, archives, deletes something or brings it back. */
export async function action({ request, context }: Route.ActionArgs) {
  const form = await request.formData();
  const asked = askSchema.safeParse(Object.fromEntries(form));
  if (!asked.success) throw data("This cannot be done to that.", { status: 400 });
  try {
    const to = safePath(form.get("to"), "/bikes");
    const done = await act(context.get(dbContext), asked.data, to, madeId(request));
    return redirect(afterChange(done.to, found(done.change, GONE), done.did));
  } catch (error) {
    if (error instanceof Refused) return data({ refused: error.message }, { status: 409 });
    throw error;
  }
}
