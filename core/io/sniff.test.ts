import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { FILE_FORMATS, formatNamed, formatOf } from "#core/io";

const bytes = (text: string) => new TextEncoder().encode(text);
const utf16 = (text: string) => {
  const units = Uint16Array.from(`\ufeff${text}`, (character) => character.charCodeAt(0));
  return new Uint8Array(units.buffer);
};
const example = (name: string) =>
  new Uint8Array(readFileSync(new URL(`../../examples/${name}`, import.meta.url)));

describe("what a file is, by how it begins", () => {
  test.each([
    ["levee-and-harbour.gpx", "track"],
    ["marsh-commute.csv", "checkIns"],
    ["marsh-commute-slips.csv", "checkIns"],
  ])("%s", (name, id) => expect(formatOf(example(name))?.id).toBe(id));
  test.each([
    ["time,volts,amps\n0,48.1,6\n1,48.0,7\n", "logger"],
    ["Timestamp;Voltage;Current;Speed (km/h)\n2026-10-20T09:00:00Z;40;5;20\n", "logger"],
    ["time,volts,amps,percent\n09:00,48.1,6,80\n", "checkIns"],
    ["time,volts,amps,note\n09:00,48.1,6,wind\n", "checkIns"],
    ["miles,battery\n0,100\n", "checkIns"],
    ['<?xml version="1.0"?>\n<gpx version="1.1"><trk/></gpx>', "track"],
    ["no table at all", "checkIns"],
    ["WEBVTT\n\n00:00:01.000 --> 00:00:03.000\nand off we go\n", "narration"],
    ["1\n00:00:01,000 --> 00:00:03,000\nand off we go\n", "narration"],
    ["[0:04] and off we go\n[3:10] a mile, ninety-eight percent\n", "narration"],
    ["date,time,battery voltage,power [W]\n10/18/2026,09:31:02,53.1,240\n", "logger"],
    ["time_ms,voltage_mv,current_ma\n0,53100,4000\n", "logger"],
  ])("%j", (text, id) => {
    expect(formatOf(bytes(text))?.id).toBe(id);
    expect(formatOf(utf16(text))?.id).toBe(id);
  });
  test.each(["<html><body>not here</body></html>", '{"tests": []}'])("%j is none of them", (text) =>
    expect(formatOf(bytes(text))).toBeNull(),
  );
  test("a row cut in two by the look does not matter", () => {
    const rows = Array.from({ length: 20_000 }, (_, i) => `${i},48.1,6`).join("\n");
    expect(formatOf(bytes(`time,volts,amps\n${rows}`))?.id).toBe("logger");
  });
});

describe("what is in a file", () => {
  const about = { name: "ride.gpx", logger: "shunt", rideStartS: 1_790_000_000, zone: "+00:00" };
  test("a recorder's file holds a track, called by the file where it has no name of its own", () => {
    const read = formatOf(example("levee-and-harbour.gpx"))?.read(example("levee-and-harbour.gpx"), about);
    expect(read).toMatchObject({ ok: true, value: { track: { name: "levee and harbour, one lap" } } });
    const unnamed = bytes(
      `<gpx><trk><trkseg>${["09:00", "09:01"].map((at) => `<trkpt lat="1" lon="2"><time>2026-10-18T${at}:00Z</time></trkpt>`).join("")}</trkseg></trk></gpx>`,
    );
    expect(formatNamed("track")?.read(unnamed, about)).toMatchObject({
      value: { track: { name: "ride.gpx" } },
    });
  });
  test("a logger's file holds samples under its logger's name, counted from the ride's start", () =>
    expect(formatNamed("logger")?.read(bytes("time,volts,amps\n0,48.1,6\n1,48.0,7\n"), about)).toMatchObject({
      value: { telemetry: { logger: "shunt", timeS: [1_790_000_000, 1_790_000_001] } },
    }));
  test("notes are a table for a person to look over", () =>
    expect(formatNamed("checkIns")?.read(bytes("miles,battery\n0,100\n"), about)).toMatchObject({
      value: { table: { headings: ["miles", "battery"], rows: [["0", "100"]] } },
    }));
  test("every reader says what is wrong with bytes that are no text; a kind that is none has no reader", () => {
    for (const { read } of FILE_FORMATS) expect(read(Uint8Array.of(0, 159, 146), about).ok).toBe(false);
    expect(formatNamed("tape")).toBeNull();
  });
});
