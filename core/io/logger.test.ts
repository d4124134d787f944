import { describe, expect, test } from "@jest/globals";
import fc, { MANY } from "#tests/property";
import { chosenColumns, guessColumns, readCheckIns, readLogger, readTable } from "#core/io";
import { telemetrySchema } from "#core/records";

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
  const told = (text: string, more: object = {}) => {
    const read = readLogger(text, "m", { rideStartS: start, zone: "+00:00", ...more });
    if (!read.ok) throw new Error(read.problems[0]!.sentence);
    return read.value;
  };
  test("watts stand for amps where a meter has no others", () => {
    expect(told("t,battery voltage,power [W]\n0,50,200\n1,50,0\n").amps).toEqual([4, 0]);
    expect(
      told("t,V,kilo (kW)\n0,50,0.2\n", { columns: chosenColumns(["time", "volts", "watts"]) }).amps,
    ).toEqual([4]);
  });
  test("a column chosen of a wider table is not there", () => {
    const columns = chosenColumns(["time", null, "volts", "amps"]);
    expect(readLogger("t,V\n0,50\n", "m", { rideStartS: start, zone: "+00:00", columns })).toMatchObject({
      ok: false,
      problems: [{ code: "no-column" }],
    });
  });
  test("units at the end of a name are its units", () =>
    expect(told("time_ms,voltage_mv,current_ma\n500,53100,4000\n")).toMatchObject({
      timeS: [start + 0.5],
      volts: [53.1],
      amps: [4],
    }));
  test("what is drawn may be written with a minus: by most of it, or as somebody said", () => {
    const text = "t,V,A\n0,50,-6\n1,50,-8\n2,50,1\n3,50,0\n";
    expect(told(text).amps).toEqual([6, 8, -1, 0]);
    expect(told(text, { drawnIsMinus: false }).amps).toEqual([-6, -8, 1, 0]);
    expect(told("t,V,A\n0,50,6\n1,50,-2\n").amps).toEqual([6, -2]);
  });
  test("a day and a clock in columns of their own, the day however it is written", () => {
    for (const day of ["2026-10-18", "18.10.2026", "10/18/2026", "18/10/2026"])
      expect(told(`date,time,V,A\n${day},09:00:00,50,6\n${day},09:00:01.5,50,6\n`).timeS).toEqual([
        start,
        start + 1.5,
      ]);
    // Of two readings of a day the one that comes nearer to the ride.
    const sixth = start - 12 * 86_400;
    expect(told("date,time,V,A\n10/06/2026,09:00:00,50,6\n", { rideStartS: sixth }).timeS).toEqual([sixth]);
    expect(told("date,time,V,A\n06/10/2026,09:00:00,50,6\n", { rideStartS: sixth }).timeS).toEqual([sixth]);
  });
  test("a clock without a day runs from the ride's start, or is the day's own; and goes on over midnight", () => {
    expect(told("time,V,A\n0:00:00,50,6\n0:00:01,50,6\n").timeS).toEqual([start, start + 1]);
    expect(told("time,V,A\n09:02:00,50,6\n").timeS).toEqual([start + 120]);
    expect(told("time,V,A\n9:02:00 am,50,6\n").timeS).toEqual([start + 120]);
    expect(told("time,V,A\n23:59:59,50,6\n00:00:00,50,6\n").timeS).toEqual([start + 53_999, start + 54_000]);
  });
  test("milliseconds since 1970 are told by their size", () =>
    expect(told(`timestamp,V,A\n${start * 1000 + 250},50,6\n`).timeS).toEqual([start + 0.25]));
  test("however it is damaged, is read or refused", () => {
    const whole =
      "Date;Time;Voltage [V];Current [A];Speed (km/h)\n18.10.2026;09:00:00;54,1;6,5;18\n18.10.2026;09:00:01;54;-2;19,8\n";
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.nat(9), fc.string({ maxLength: 6 }), (at, length, put) => {
        const text = whole.slice(0, at) + put + whole.slice(at + length);
        const read = readLogger(text, "m", { rideStartS: start, zone: "+00:00" });
        if (read.ok) expect(telemetrySchema.safeParse(read.value).success).toBe(true);
        else expect(read.problems[0]!.sentence).toMatch(/[.:]/);
      }),
      { numRuns: MANY },
    );
  }, 120_000);
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
