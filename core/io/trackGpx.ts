import { XMLBuilder } from "fast-xml-parser";
import type { TrackRecord } from "#core/records";

/** A recorder's track as GPX 1.1: one segment, with time and, where there is one, height of each point. */
export function writeTrackGpx({ name, timeS, lat, lon, eleM }: TrackRecord): string {
  const points = timeS.map((seconds, i) => ({
    "@lat": lat[i],
    "@lon": lon[i],
    ...(eleM[i] === null || eleM[i] === undefined ? {} : { ele: eleM[i] }),
    time: new Date(Math.round(seconds * 1000)).toISOString(),
  }));
  const builder = new XMLBuilder({
    attributeNamePrefix: "@",
    ignoreAttributes: false,
    suppressEmptyNode: true,
  });
  return builder.build({
    "?xml": { "@version": "1.0", "@encoding": "UTF-8" },
    gpx: {
      "@xmlns": "http://www.topografix.com/GPX/1/1",
      "@version": "1.1",
      "@creator": "Barometron",
      trk: { ...(name && { name }), trkseg: { trkpt: points } },
    },
  });
}
