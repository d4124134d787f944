import {
  columnsOfMeter,
  decodeText,
  METER_FIELDS,
  joinTracks,
  readTable,
  type FileContents,
  type FormatId,
  type MeterColumns,
  type MeterField,
} from "#core/io";
import { lastOf, nth } from "#core/base";
import { sumTelemetry } from "#core/battery/readings";
import { proposedOffset, tieSamples, tieTrack, zonePart, type TiedClock } from "#core/ride/clocks";
import { meanWhileMoving, profileOf, standsOf } from "#core/ride/distance";
import type { TelemetryRecord, TrackRecord } from "#core/records";
import type { Database } from "#db/client";
import { listImports } from "#db/telemetry";
import { trackOfRide } from "#db/tracks";
import { hashOf } from "./keepFile";
import { besideOf, isAhead, readSent, sentencesOf, type RideBeside, type SentFile } from "./sent";

/** A file's clock against the ride's: what was found, and what is proposed to be added to it, s. */
export interface ClockLook {
  readonly found: TiedClock | null;
  readonly proposedS: number;
  /** What of the offset is a zone, s. */
  readonly zoneS: number;
  /** Its times lie in the future, also with what is proposed. */
  readonly inFuture: boolean;
}

/** What a recorder's file holds, SI. */
export interface TrackLook {
  readonly fromS: number;
  readonly toS: number;
  readonly points: number;
  readonly distanceM: number;
  readonly movingS: number;
  readonly gainM: number | null;
  readonly stops: number;
  readonly meanBpm: number | null;
  readonly meanRiderW: number | null;
  readonly meanCadence: number | null;
  readonly gaps: number;
  readonly sport: string;
  readonly sums: TrackRecord["sums"] | null;
  /** Name of the track that is there: it is replaced, or goes on. */
  readonly there: string | null;
  readonly joins: boolean;
}

/** What a meter's file holds, SI. */
export interface MeterLook {
  readonly fromS: number;
  readonly toS: number;
  readonly samples: number;
  readonly wh: number;
  readonly hasSpeed: boolean;
}

/** A table as a person maps its columns. */
export interface TableLook {
  readonly headings: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly columns: readonly (MeterField | null)[];
}

/** What a file is and what it would add; nothing of it is kept. */
export interface Look {
  readonly format: { readonly id: FormatId; readonly name: string } | null;
  /** Why it cannot be kept as it is; empty when it can. */
  readonly problems: readonly string[];
  /** Just this file is there already. */
  readonly isThere: boolean;
  readonly clock: ClockLook | null;
  readonly track: TrackLook | null;
  readonly meter: MeterLook | null;
  /** Of a table, whose columns can be chosen. */
  readonly table: TableLook | null;
  /** Rows of check-ins, pieces of speech. */
  readonly rows: number | null;
}

const NOTHING: Look = {
  ...{ format: null, problems: [], isThere: false, clock: null },
  ...{ track: null, meter: null, table: null, rows: null },
};

/** @param lastS of the recording, s since the epoch */
export function clockLook(found: TiedClock | null, lastS: number): ClockLook {
  const proposedS = proposedOffset(found);
  return {
    ...{ found, proposedS },
    zoneS: found ? zonePart(found.offsetS) : 0,
    inFuture: isAhead(lastS + proposedS),
  };
}

function trackLook(track: TrackRecord, there: TrackRecord | null, sport: string): TrackLook {
  const profile = profileOf(track);
  const mean = (values: readonly (number | null)[] | undefined) =>
    values ? (meanWhileMoving(track, values)?.mean ?? null) : null;
  return {
    fromS: nth(track.timeS, 0),
    toS: lastOf(track.timeS),
    points: track.timeS.length,
    distanceM: profile.totalM,
    movingS: profile.movingS,
    gainM: profile.hasHeights ? lastOf(profile.gainM) : null,
    stops: standsOf(profile).length,
    meanBpm: mean(track.bpm),
    meanRiderW: mean(track.riderW),
    meanCadence: mean(track.cadence),
    gaps: profile.gaps,
    sport,
    sums: track.sums ?? null,
    there: there?.name ?? null,
    joins: there !== null && joinTracks(there, track) !== null,
  };
}

const meterLook = ({ timeS, volts, amps, speedMps }: TelemetryRecord): MeterLook => ({
  fromS: nth(timeS, 0),
  toS: lastOf(timeS),
  samples: timeS.length,
  wh: sumTelemetry(timeS, volts, amps).wh,
  hasSpeed: speedMps !== undefined,
});

const SHOWN_ROWS = 4;

/** The columns of a table, as they were chosen or as their headings tell. */
function tableLook(bytes: Uint8Array, chosen: MeterColumns | undefined): TableLook | null {
  const text = decodeText(bytes.subarray(0, 256 * 1024), "file");
  // The look may cut the last row in two.
  const head = text.ok ? text.value.split("\n").slice(0, 30).join("\n") : "";
  const table = readTable(head);
  if (!table.ok) return null;
  const { headings, rows } = table.value;
  const at = chosen ?? columnsOfMeter(headings);
  return {
    headings,
    rows: rows.slice(0, SHOWN_ROWS),
    columns: headings.map((_, i) => METER_FIELDS.find((field) => at[field] === i) ?? null),
  };
}

/** The parts of a look that what was read gives. */
function lookOf(contents: FileContents, beside: RideBeside): Partial<Look> {
  const { track, telemetry, sport = "", table, spoken } = contents;
  const { log, track: there, samples } = beside;
  return {
    ...(track && {
      track: trackLook(track, there, sport),
      clock: clockLook(tieTrack(track, { log, samples }), lastOf(track.timeS)),
    }),
    ...(telemetry && {
      meter: meterLook(telemetry),
      clock: clockLook(tieSamples(telemetry, { log, track: there }), lastOf(telemetry.timeS)),
    }),
    ...(table && { rows: table.rows.length }),
    ...(spoken && { rows: spoken.length }),
  };
}

/** Says what a file is, and what it would add to a ride. */
export async function lookAtFile(db: Database, file: SentFile): Promise<Look> {
  const beside = await besideOf(db, file.testId, file.rideId);
  const read = readSent(file, beside.about);
  if (!read.ok) return { ...NOTHING, problems: sentencesOf(read.problems) };
  const { format, contents } = read.value;
  const hash = hashOf(file.bytes);
  const [imports, track] = await Promise.all([listImports(db, file.rideId), trackOfRide(db, file.rideId)]);
  const isThere =
    (format.id === "logger" && imports.some((each) => each.sourceHash === hash && !each.replaced)) ||
    track?.sourceHash === hash;
  const isTable = format.id === "logger" || format.id === "checkIns";
  return {
    ...NOTHING,
    format,
    isThere,
    problems: contents.ok ? [] : sentencesOf(contents.problems),
    table: isTable ? tableLook(file.bytes, file.columns) : null,
    ...(contents.ok ? lookOf(contents.value, beside) : {}),
  };
}
