import { z } from "zod";
import { err, ok, parseQuantity, unitOf, type Result, type System } from "#core/base";
import { groundSchema, type Ground } from "#core/fields";
import { paintGround } from "#core/ride/clocks";
import { profileOf } from "#core/ride/distance";
import type { Entry } from "#core/ride/log";
import { besideOf } from "#app/services/recordings/sent";
import type { Database } from "#db/client";
import { appendEntries } from "#db/log";
import { listImports, setImportOffset } from "#db/telemetry";
import { setTrackOffset, trackOfRide } from "#db/tracks";
import { entryIdInBatch } from "../import.server";
import { clientId } from "../log.server";
import { offsetTyped } from "../files/sent";

type Where = { readonly testId: string; readonly rideId: string };

/** Puts a device's clock by what was typed. */
export async function saveClock(db: Database, { rideId }: Where, form: FormData): Promise<Result<true>> {
  const offset = offsetTyped(String(form.get("offset") ?? ""));
  if (!offset.ok) return offset;
  const id = z.uuid().safeParse(form.get("device"));
  const track = await trackOfRide(db, rideId);
  if (form.get("kind") === "track" && track && track.id === id.data)
    await setTrackOffset(db, rideId, track.id, offset.value);
  else if ((await listImports(db, rideId)).some((each) => each.id === id.data))
    await setImportOffset(db, rideId, id.data ?? "", offset.value);
  else return err("gone", "device", "That recording is not there any more: open this page anew.");
  return ok(true);
}

interface Stretch {
  readonly fromM: number;
  readonly toM: number;
  readonly ground: Ground;
}

/** A part of the way as it was typed. */
function stretchOf(form: FormData, wholeM: number, system: System): Result<Stretch> {
  const unit = unitOf("distance", system);
  const from = parseQuantity(String(form.get("from") ?? ""), "distance", unit, "from");
  const to = parseQuantity(String(form.get("to") ?? ""), "distance", unit, "to");
  const ground = groundSchema.safeParse(form.get("ground"));
  if (!from.ok) return from;
  if (!to.ok) return to;
  if (!ground.success) return err("ground", "ground", "Choose the ground.");
  if (!(from.value < to.value && from.value < wholeM))
    return err(
      "stretch",
      "from",
      "Type where it began and where it ended, along the recorder's way: from 2.5 to 4.1.",
    );
  return ok({ fromM: from.value, toM: to.value, ground: ground.data });
}

/** Adds the lines of a ground that was painted by hand to the log; answers how many. */
export async function paint(
  db: Database,
  where: Where,
  form: FormData,
  { first, system }: { readonly first: Ground; readonly system: System },
): Promise<Result<number>> {
  const { track, log } = await besideOf(db, where.testId, where.rideId);
  if (!track)
    return err("no-track", "from", "Only a recorder tells when it was where: import its file first.");
  const profile = profileOf(track);
  const stretch = stretchOf(form, profile.totalM, system);
  if (!stretch.ok) return stretch;
  const batch = clientId(form.get("batchId"));
  const entries = paintGround(profile, log, { ...stretch.value, first }).map(
    ({ timeS, ground }, i): Entry => ({
      id: entryIdInBatch(batch, i),
      seq: i,
      at: new Date(Math.round(timeS * 1000)).toISOString(),
      body: { kind: "checkIn", ground },
      supersedes: null,
      clockOffsetS: 0,
    }),
  );
  await appendEntries(db, where.rideId, entries);
  return ok(entries.length);
}
