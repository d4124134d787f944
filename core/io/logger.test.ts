import { describe, expect, test } from "@jest/globals";
import { guessColumns, readCheckIns, readLogger, readTable } from "#core/io";

describe("a logger's file", () => {
  const start = Date.UTC(2026, 9, 18, 9) / 1000;
  test("with seconds since the start, speed in km/h, and energy that comes back", () => {
    const read = readLogger("time;volts;amps;speed (km/h)\n0;54,1;6,5;18\n1;54,0;-2;19,8\n", "box", {
      rideStartS: start,
      zone: "CET",
    });
    expect(read).toEqual({
      ok: true,
      value: {
        logger: "box",
        timeS: [start, start + 1],
        volts: [54.1, 54],
        amps: [6.5, -2],
        speedMps: [5, 5.5],
      },
    });
  });
  test("with full times needs no start", () => {
    const read = readLogger(
      "Timestamp,Pack volts,Current\n2026-10-18T09:00:00Z,54.1,6\n2026-10-18 09:00:01Z,54.0,7\n",
      "b",
      { rideStartS: null, zone: "CET" },
    );
    expect(read.ok && read.value.timeS).toEqual([start, start + 1]);
    expect(read.ok && "speedMps" in read.value).toBe(false);
  });
  test("units in the headings are read, and times without a zone are the ride's own clock's", () => {
    const read = readLogger(
      "Time [local],Volts (mV),Amps (mA)\n2026-10-18 11:00:00.5,54100,6500\n2026-10-18T11:00:01+02:00,54000,-200\n",
      "b",
      { rideStartS: null, zone: "CET" },
    );
    expect(read).toMatchObject({
      ok: true,
      value: { timeS: [start + 0.5, start + 1], volts: [54.1, 54], amps: [6.5, -0.2] },
    });
    const inMs = readLogger("t (ms),V,A\n500,54,6\n1500,54,6\n", "b", { rideStartS: start, zone: "+00:00" });
    expect(inMs).toMatchObject({ value: { timeS: [start + 0.5, start + 1.5] } });
  });
  test.each([
    ["time,volts (kW),amps\n0,54,6\n", "names a unit that is not read"],
    ["time,volts\n0,54\n", "No column is called amps"],
    ["time,volts,amps\n0,54,6\n", "count from the ride's start, which nobody noted"],
    ["time,volts,amps\n2026-10-18T09:00:00Z,high,6\n", "row 2, column volts"],
    ["time,volts,amps\nlate,54,6\n", "“late” is not a time"],
    [
      "time,volts,amps\n2026-10-18T09:00:05Z,54,6\n2026-10-18T09:00:01Z,54,6\n",
      "put the rows in order of time",
    ],
    ["", "holds no"],
  ])("%j is refused: %s", (text, sentence) => {
    const read = readLogger(text, "box", { rideStartS: null, zone: "+00:00" });
    expect(!read.ok && read.problems.map(({ path, sentence: said }) => `${path} ${said}`).join()).toContain(
      sentence,
    );
  });
});

describe("counters and charges in a table of check-ins", () => {
  const options = {
    distanceUnit: "mi",
    levelHolds: "from here",
    day: "2026-10-18",
    zone: "+00:00",
    fullAtStart: true,
  } as const;
  const read = (text: string) => {
    const table = readTable(text);
    if (!table.ok) throw new Error(table.problems[0]!.sentence);
    return readCheckIns(table.value, guessColumns(table.value, "mi"), options);
  };
  test("are read in Wh, Ah and Wh at the wall", () => {
    const rows = read(
      "miles,%,Wh,Ah,wall Wh,event\n0,100,0,0,,\n8,80,104,2.1,,\n8,,,,0.21 kWh,charged full\n",
    );
    expect(rows.ok && rows.value.map(({ body }) => body)).toMatchObject([
      { kind: "start", counterWh: 0, counterAh: 0 },
      { kind: "checkIn", counterWh: 104, counterAh: 2.1 },
      { kind: "refill", toFull: true, wallWh: 210 },
    ]);
  });
  test("a counter alone is a reading; no wall energy below nothing", () => {
    expect(read("miles,Wh\n0,0\n8,104\n").ok).toBe(true);
    const bad = read("miles,%,wall,event\n0,100,,\n8,,-3,charged\n");
    expect(!bad.ok && bad.problems[0]!.path).toBe("row 3, column wall");
  });
});
