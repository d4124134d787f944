import { v7 as uuidv7 } from "uuid";
import { z } from "zod";
import { err, isInReach, ok, parseQuantity, unitOf, type Result, type System } from "#core/base";
import { groundSchema, type Ground } from "#core/fields";
import { paintGround, timedByFilm } from "#core/ride/clocks";
import { profileOf } from "#core/ride/distance";
import { foldLog, type Entry } from "#core/ride/log";
import { besideOf } from "#app/services/recordings/sent";
import type { Database } from "#db/client";
import { appendEntries, listEntries } from "#db/log";
import { listImports, setImportOffset } from "#db/telemetry";
import { setTrackOffset, trackOfRide } from "#db/tracks";
import { entryIdInBatch } from "../import.server";
import { clientId } from "../log.server";
import { offsetTyped } from "../files/sent";
import { beganByTie } from "./filmTie";

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

/** Ties the film to the ride's clock by one moment: its lines get the times that follow. Answers how many changed. */
export async function tieFilm(
  db: Database,
  { rideId }: Where,
  form: FormData,
  { day, zone }: { readonly day: string; readonly zone: string },
): Promise<Result<number>> {
  const tie = { clock: String(form.get("clock") ?? ""), film: String(form.get("film") ?? "") };
  const beganS = beganByTie(tie, day, zone);
  if (beganS === null || !isInReach(beganS))
    return err(
      "tie",
      "clock",
      "Type what the clock said, such as 10:20 or 10:20:15, and where the film was then, such as 1:05 or 1:02:07.",
    );
  const entries = timedByFilm(foldLog(await listEntries(db, rideId)), beganS).map(
    ({ entry, timeS }, i): Entry => ({
      id: uuidv7(),
      seq: i,
      at: new Date(Math.round(timeS * 1000)).toISOString(),
      body: entry.body,
      supersedes: entry.id,
      clockOffsetS: 0,
    }),
  );
  if (entries.length) await appendEntries(db, rideId, entries);
  return ok(entries.length);
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
