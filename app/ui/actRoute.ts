import { href, data, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { z } from "zod";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found } from "#app/ui/require.server";
import { afterChange, safePath } from "#app/ui/safePath";
import { findBike, listPacks, listSetUps, saveBike, savePack, saveSetUp } from "#db/bikes";
import type { Database } from "#db/client";
import { ENTITY_KINDS, archiveEntity, type EntityKind } from "#db/entities";
import type { Route } from "./+types/actRoute";

const askSchema = z.object({
  kind: z.enum(ENTITY_KINDS as [EntityKind, ...EntityKind[]]),
  id: z.uuid(),
  intent: z.enum(["archive", "restore", "duplicate"]),
});

const GONE = "It is no longer there.";

/** A bike with its packs and set-ups, once more under another name. */
async function duplicateBike(
  db: Database,
  id: string,
  copy: string,
): Promise<{ to: string; change: string }> {
  const bike = found(await findBike(db, id), GONE);
  const isMade = (await findBike(db, copy)) !== null;
  const change = await saveBike(db, copy, { ...bike, name: `${bike.name}, copy`.slice(0, 120) });
  if (!isMade) {
    for (const pack of await listPacks(db, id)) await savePack(db, uuidv7(), copy, pack);
    for (const setUp of await listSetUps(db, id)) await saveSetUp(db, uuidv7(), copy, setUp);
  }
  return { to: href("/bikes/:bikeId/edit", { bikeId: copy }), change };
}

async function duplicateSetUp(
  db: Database,
  id: string,
  copy: string,
): Promise<{ to: string; change: string }> {
  const setUp = found(
    (await listSetUps(db)).find((each) => each.id === id),
    GONE,
  );
  const { since: _, ...rest } = setUp;
  const change = await saveSetUp(db, copy, setUp.bikeId, {
    ...rest,
    name: `${setUp.name}, copy`.slice(0, 120),
  });
  return { to: href("/bikes/:bikeId/set-ups/:setUpId", { bikeId: setUp.bikeId, setUpId: copy }), change };
}

/** Puts something away or back, or makes another like it. */
export async function action({ request, context }: Route.ActionArgs) {
  const form = await request.formData();
  const asked = askSchema.safeParse(Object.fromEntries(form));
  if (!asked.success) throw data("This cannot be done to that.", { status: 400 });
  const { kind, id, intent } = asked.data;
  const db = context.get(dbContext);
  if (intent === "duplicate") {
    if (kind !== "bike" && kind !== "setUp")
      throw data("Only bikes and set-ups are copied.", { status: 400 });
    const copy = madeId(request);
    const { to, change } = await (kind === "bike"
      ? duplicateBike(db, id, copy)
      : duplicateSetUp(db, id, copy));
    return redirect(afterChange(to, change));
  }
  const change = found(await archiveEntity(db, kind, id, intent === "archive"), GONE);
  return redirect(afterChange(safePath(form.get("to"), "/bikes"), change));
}
