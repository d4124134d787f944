import { clockText, dayAt, fixed, formatQuantity, type System, countOf } from "#core/base";
import type { ClockLook, Look, MeterLook, TrackLook } from "#app/services/recordings/lookAt";

/** A span of seconds as it is said. */
export function spanSaid(seconds: number): string {
  const whole = Math.abs(seconds);
  if (whole < 90) return `${fixed(whole, whole < 10 ? 1 : 0)} s`;
  const [h, min, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), Math.round(whole % 60)];
  return [h ? `${h} h` : "", min ? `${min} min` : "", s ? `${s} s` : ""].filter(Boolean).join(" ");
}

const dayClock = (timeS: number, zone: string) =>
  `${dayAt(timeS * 1000, zone)} ${clockText(timeS * 1000, zone)}`;

const whenSaid = (fromS: number, toS: number, zone: string) =>
  `${dayClock(fromS, zone)} to ${clockText(toS * 1000, zone)}`;

function trackSaid(look: TrackLook, zone: string, system: System): readonly string[] {
  const { sums } = look;
  const heart = look.meanBpm === null ? [] : [`heart ${fixed(look.meanBpm, 0)} a minute`];
  const rider = look.meanRiderW === null ? [] : [`${fixed(look.meanRiderW, 0)} W at the cranks`];
  const cadence = look.meanCadence === null ? [] : [`${fixed(look.meanCadence, 0)} turns a minute`];
  const beside = [...heart, ...rider, ...cadence];
  const own =
    sums?.distanceM !== undefined && Math.abs(sums.distanceM / look.distanceM - 1) > 0.005
      ? [
          `Its own sum is ${formatQuantity(sums.distanceM, "distance", system)}: the points give ${formatQuantity(look.distanceM, "distance", system)}, which count.`,
        ]
      : [];
  return [
    `${whenSaid(look.fromS, look.toS, zone)}, ${look.points.toLocaleString("en")} points.`,
    `Adds the way, ${formatQuantity(look.distanceM, "distance", system)} in ${spanSaid(look.movingS)} of riding, ${look.stops} ${look.stops === 1 ? "stop" : "stops"}${look.gainM === null ? ", no heights" : `, ${formatQuantity(look.gainM, "climb", system)} of climb`}.`,
    ...(beside.length ? [`In motion: ${beside.join(", ")}.`] : []),
    ...own,
    ...(look.gaps > 0 ? [`${look.gaps} ${look.gaps === 1 ? "gap is" : "gaps are"} bridged straight.`] : []),
    ...(isOtherSport(look.sport) ? [`The recorder calls it “${look.sport}”: is it of this ride?`] : []),
    ...(look.there === null
      ? []
      : [
          look.joins
            ? `It goes on from the track that is there.`
            : `It takes the place of the track that is there.`,
        ]),
  ];
}

/** Names that recorders give to rides. */
const isOtherSport = (sport: string) =>
  sport !== "" && !/cycl|bik|ride|e.?bike|other|generic|^\d*$/i.test(sport);

const meterSaid = (look: MeterLook, zone: string): readonly string[] => [
  `${whenSaid(look.fromS, look.toS, zone)}, ${look.samples.toLocaleString("en")} samples.`,
  `Adds ${fixed(look.wh, 0)} Wh out of the pack, by stretch between check-ins that have a time${look.hasSpeed ? ", and speed" : ""}.`,
];

/** What a file is and would add, in sentences. */
export function lookSaid(
  { track, meter, format, rows }: Look,
  zone: string,
  system: System,
): readonly string[] {
  if (track) return trackSaid(track, zone, system);
  if (meter) return meterSaid(meter, zone);
  if (format?.id === "checkIns" && rows !== null)
    return [`${countOf(rows, "row")}. Its columns are looked over before anything is kept.`];
  if (format?.id === "narration" && rows !== null)
    return [`${countOf(rows, "piece")} of speech, gone through moment by moment before anything is kept.`];
  if (format?.id === "photograph")
    return ["It becomes a check-in at the time it was taken, whose figures are read off later."];
  return [];
}

const AGAINST = { log: "the log", recorder: "the recorder", meter: "the meter" } as const;

/** What is known of a file's clock, in one sentence. */
export function clockSaid({ found, zoneS, proposedS, inFuture }: ClockLook): string {
  if (inFuture)
    return "Its times lie in the future: add what its clock is off, such as -1:00:00, or export it again.";
  if (!found)
    return "Its clock could not be held against anything: too little of the ride has a time and a place in both.";
  const by = AGAINST[found.against];
  // Nothing of a doubt is broken over two lines.
  const doubt = `± ${spanSaid(1.96 * found.sdS)}`.replaceAll(" ", "\u00a0");
  if (found.sure < 0.9)
    return `By ${by} its clock may be ${[found.offsetS, ...found.rivals].slice(0, 3).map(aheadSaid).join(", or ")}: it is not sure which.`;
  if (proposedS === 0) return `Its clock agrees with ${by} (${doubt}).`;
  const rest = found.offsetS - zoneS;
  if (zoneS === 0) return `By ${by} its clock is ${aheadSaid(found.offsetS)} (${doubt}).`;
  const zone = `${spanSaid(zoneS)} ${zoneS > 0 ? "behind" : "ahead"}`;
  return `By ${by} its clock is ${zone}: another zone, or summer time${Math.abs(rest) < Math.max(4, 2 * found.sdS) ? "" : `; and ${aheadSaid(rest)}`} (${doubt}).`;
}

/** An offset to be added, said of the clock itself. */
const aheadSaid = (offsetS: number) =>
  Math.abs(offsetS) < 0.5 ? "right" : `${spanSaid(offsetS)} ${offsetS > 0 ? "behind" : "ahead"}`;
