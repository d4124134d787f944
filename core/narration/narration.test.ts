import { describe, expect, test } from "@jest/globals";
import fc, { MANY } from "#tests/property";
import { readSpoken, spokenFormatOf } from "#core/io";
import { outOfOrder } from "./order.ts";
import { factsOf, quickNotes, readNarration, type Item } from "./index.ts";

const read = (text: string, unit?: "mi" | "km") => {
  const found = readNarration(text, { format: "plain", ...(unit && { unit }) });
  if (!found.ok) throw new Error("not read");
  return found.value;
};
const shown = ({ kind, value }: Item) => `${kind} ${Array.isArray(value) ? value.join("-") : String(value)}`;
/** Everything that is proposed of a text, in the order it was said. */
const found = (text: string) => {
  const { items, setUp } = read(text);
  return [...items, ...setUp]
    .sort((a, b) => a.place.piece - b.place.piece || a.place.from - b.place.from)
    .map(shown)
    .join(", ");
};
/** Why a text's only figure is left out. */
const why = (text: string) => {
  expect(found(text)).toBe("");
  return [...new Set(read(text).left.map(({ because }) => because))].join(", ");
};

describe("a moment is announced", () => {
  test.each([
    ["There we are, the thirty-one-mile mark has just gone by.", "distance 31"],
    ["Short report, mile 27.", "distance 27"],
    ["The trip meter reads 18.6 kilometres.", "distance 18.6"],
    ["We are 33 miles into this one.", "distance 33"],
    ["64 kilometres done, 41 still ahead.", "distance 64"],
    ["we hit the 30 mile mark with 21% remaining", "distance 30, percent_left 21"],
    ["okay so 23 miles in and we are at 44 percent battery", "distance 23, percent_left 44"],
    [
      "Moving time 2 hours 8, mean pulse 127, metres gained 410, distance 48.9.",
      "elapsed_time 7680, heart_rate 127, climb_gain 410, distance 48.9",
    ],
    [
      "Distance: 30.1 miles. Average: 12.9. Maximum: 24.2. Elevation gain: 330 feet.",
      "distance 30.1, avg_speed 12.9, top_speed 24.2, climb_gain 330",
    ],
  ])("%s", (text, expected) => expect(found(text)).toBe(expected));
});

describe("charge", () => {
  test.each([
    ["The gauge claims 58 percent.", "percent_left 58"],
    ["so it's on 47 battery now", "percent_left 47"],
    ["That used up 38 percent, leaving 62.", "percent_used 38, percent_left 62"],
    ["The needle stands at roughly a third.", "percent_left 33"],
    ["The indicator stands at roughly a quarter.", "percent_left 25"],
    ["The battery went from 78 to 71 percent on that climb.", "percent_left 71"],
    ["There goes my third bar, at 22.4.", "bar_lost 1, distance 22.4"],
    ["I have lost a bar. Another one gone.", "bar_lost 1, bar_lost 1"],
    ["Only down to four bars out of five.", "bars_left 4"],
    ["It slid from six bars to five.", "bar_lost 1, bars_left 5"],
    ["we're now on the last bar", "bars_left 1"],
    ["Voltage went 51.2 to 49.8.", "volts 49.8"],
    ["Standing still the voltage is 50.3. On full throttle it sags to 47.", "volts 50.3, volts 47"],
    ["The screen promises 36 more miles.", "range_guess 36"],
    ["it says I can go another 25 miles", "range_guess 25"],
    ["My bet is a bit beyond 44.", "range_guess 44"],
  ])("%s", (text, expected) => expect(found(text)).toBe(expected));
});

describe("speed, power, level, time, body, ground", () => {
  test.each([
    ["Five, six mile an hour.", "speed 5-6"],
    ["It flickers between 8.4 and 10.1 amps.", "amps 8.4-10.1"],
    [
      "Assist two, 10.4 miles an hour, 2.7 amps. Assist three, 4.8 amps, 13.1 miles an hour.",
      "level 2, speed 10.4, amps 2.7, level 3, amps 4.8, speed 13.1",
    ],
    ["Running past 7 up here.", "level 7"],
    ["Dropped it to trail.", "level trail"],
    ["Nothing but thumb today, feet stay still.", "throttle only"],
    ["Been riding one hour 37 minutes.", "elapsed_time 5820"],
    ["480 feet gained, pulse in the 140s.", "climb_gain 480, heart_rate 140"],
    ["Minus three up here, wind in the face.", "temperature -3, wind head"],
    ["Back on tarmac now.", "ground asphalt"],
    ["It has pulled itself down into its weakest mode.", "low_power low power"],
    ["And that's me out of juice.", "cut_off cut off"],
    ["I'm stopping the test, it would still run.", "stop stop"],
    ["My average speed was 16.4 miles an hour and my max was 31.", "avg_speed 16.4, top_speed 31"],
  ])("%s", (text, expected) => expect(found(text)).toBe(expected));
});

describe("figures", () => {
  test.each([
    ["Nearly 41 miles. 40.83, to be precise.", "distance 40.83"],
    ["It weighs 61, well, 61.4 kilos on my scale.", "weight_bike 61.4"],
    ["38 amps, say 36.5.", "amps 36.5"],
    ["We've done 53, 55 miles.", "distance 55"],
    ["We're at 12 and a half miles.", "distance 12.5"],
    ["eleven point four miles done", "distance 11.4"],
    ["We're on 63\n.4 kilometres", "distance 63.4"],
  ])("%s", (text, expected) => expect(found(text)).toBe(expected));
  test("keep how they were hedged, and what was taken back", () => {
    expect(read("A touch beyond 41.2 miles.").items[0]).toMatchObject({ approx: true, side: "above" });
    expect(read("Nearly 41 miles done.").items[0]).toMatchObject({ approx: true, side: "below" });
    expect(read("okay eleven miles, no, eleven point four").items[0]).toMatchObject({
      value: 11.4,
      withdrawn: 11,
    });
  });
});

describe("facts of bike, pack and rider stand apart", () => {
  test.each([
    ["It's a 540 watt pack on a 52-volt system.", "pack_wh 540, pack_v 52"],
    ["So it's got a 48 volt 14 amp hour battery with 672 watt hours.", "pack_v 48, pack_ah 14, pack_wh 672"],
    ["On paper it's good for 55 to 70 miles.", "claim_range 55-70"],
    ["I'm 6 foot 2 and 190 pounds.", "weight_rider 190"],
    ["The bike weighs in at 68 pounds with the battery.", "weight_bike 68"],
    ["Tyres at 46.", "pressure 46"],
  ])("%s", (text, expected) => {
    expect(found(text)).toBe(expected);
    expect(read(text).items).toEqual([]);
  });
});

describe("what is no reading is left out, with why", () => {
  test.each([
    ["My van is 49 to 51 miles off.", "still to go"],
    ["That gauge hasn't moved in sixteen or seventeen miles.", "still to go"],
    ["If I'd kept it in eco I'd have seen 89 miles.", "a what-if"],
    ["How many bars will 74 miles cost?", "a question"],
    ["The previous one managed 49 miles on a smaller pack.", "another bike, pack or rider"],
    ["Last week it did 38 miles.", "another ride"],
    ["This ramp is 18.2 percent.", "a slope"],
    ["Level one is set to 46 percent.", "a percentage of something else"],
    ["The pack is nine months old.", "a time of something else"],
    ["The limit here is 20 miles an hour.", "a limit, or what it can do"],
    ["I'll speak up again around mile 58.", "a plan"],
  ])("%s", (text, expected) => expect(why(text)).toContain(expected));
});

describe("order", () => {
  test("what falls out of it is left out, and sections that begin anew are not", () => {
    expect(outOfOrder([40, 4, 9, 17, 16.9, 33], 0.3)).toEqual(new Set([0]));
    expect(outOfOrder([1, 2, 3, 1, 2, 3, 1, 2, 3], 0.3).size).toBe(0);
    expect(outOfOrder([3, 1], 0)).toEqual(new Set());
  });
  test("moments open with a place, and the charge may come before it", () => {
    const { items } = read("[0:10] 20 percent left at 33.9 miles.\n[1:10] 38 miles and 12 percent.");
    expect(items.map(shown)).toEqual(["percent_left 20", "distance 33.9", "distance 38", "percent_left 12"]);
  });
  test("two meters of one place are a question, and the recorder stands", () => {
    const { items, questions } = read("We're off. The phone says 15.1 miles and the bike says 15.9 miles.");
    expect(items.map(shown)).toEqual(["distance 15.1"]);
    expect(questions[0]).toMatchObject({
      kind: "two instruments",
      answers: ["recorder, 15.1 mi", "display, 15.9 mi"],
      effects: [{ swap: null }, { swap: { at: 0, for: { value: 15.9, of: "display" } } }],
    });
  });
  test("whose log it is may be answered: the other's readings are named", () => {
    const { items, questions } = read(
      "[1:00] 10 miles in. Mine says 80 percent and yours says 74 percent.\n[5:00] 12 miles, mine is at 76 percent, yours is at 70 percent.",
    );
    const asked = questions.find(({ kind }) => kind === "two riders")!;
    const [ours, theirs] = asked.effects;
    expect(ours!.drops.map((at) => items[at]!.value)).toEqual([74, 70]);
    expect(theirs!.drops.map((at) => items[at]!.value)).toEqual([80, 76]);
  });
});

describe("facts of what is ridden", () => {
  test("go where a record has a field for them, in its units; the last of two counts", () => {
    const { setUp, unit } = read(
      "So this is the 48 volt 14 amp hour pack. I weigh 210 pounds with the boots. Tyres are at 40 psi. It's 1800 dollars.\n" +
        "Right, 3 miles done.",
    );
    const facts = factsOf(setUp, unit);
    const of = (field: string) => facts.find((fact) => fact.field === field);
    expect(of("nominalV")).toMatchObject({ record: "pack", value: 48 });
    expect(of("ampHours")).toMatchObject({ record: "pack", value: 14 });
    expect(of("massKg")).toMatchObject({ record: "rider" });
    expect(of("massKg")!.value).toBeCloseTo(95.25, 1);
    expect(of("pressurePa")!.value).toBeCloseTo(275_790, -2);
    expect(of("priceMinor")).toMatchObject({ record: "bike", value: 180_000, high: null });
    expect(
      factsOf([...setUp, { ...setUp[0]!, kind: "pack_v", value: [50, 54] }], unit).find(
        ({ field }) => field === "nominalV",
      )!.value,
    ).toBe(52);
  });
});

describe("a quick figure", () => {
  test("takes speech as it takes notes", () => {
    const speech =
      "so this is the 52 volt 17 amp hour pack and i weigh 175 pounds and it's fully charged this morning " +
      "okay we're off and that's 8 miles and it's at 80 percent battery so then on along the levee with nothing to say " +
      "and now we are at 27 miles and 31 percent left and that's where i stop for today thank you very much for watching";
    expect(quickNotes(speech)).toBe("52 V 17 Ah; 175 lb rider; full; 8 mi 80 %; 27 mi 31 %");
    const cut = `[0:10] It's a 48 volt 14 amp hour pack, fully charged.\n[5:00] 20 miles and 22 percent.\n[5:20] It cut out right here, at 24.1 miles.`;
    expect(quickNotes(cut)).toBe("48 V 14 Ah; full; 20 mi 22 %; died at 24.1 mi");
  });
  test("leaves notes as they are", () => {
    const notes = "52 V 17 Ah, full, 27 mi, 31 % left, throttle, 175 lb rider";
    expect(quickNotes(notes)).toBe(notes);
  });
});

describe("the text itself", () => {
  const srt =
    "1\r\n00:00:05,000 --> 00:00:08,000\r\nTrip meter reads\r\n\r\n2\r\n00:00:08,500 --> 00:00:11,000\r\n8.4 miles, 85 percent left.\r\n";
  const vtt =
    "WEBVTT\n\n00:05.000 --> 00:08.000\n<v Rider>Trip meter reads 8.4\n\n00:08.500 --> 00:11.000\nmiles, 85 percent left.\n";
  const stamped = "[0:05] Trip meter reads 8.4\n[0:09] miles, 85 percent left.";
  test.each([
    ["srt", srt],
    ["vtt", vtt],
    ["stamped", stamped],
    ["stamped", "(0:00:05) Trip meter reads 8.4 miles, 85 percent left."],
    ["plain", "Trip meter reads 8.4 miles, 85 percent left."],
  ])("is read as %s, over borders of its pieces", (format, text) => {
    expect(spokenFormatOf(text)).toBe(format);
    const result = readNarration(text);
    expect(result.ok && result.value.items.map(shown)).toEqual(["distance 8.4", "percent_left 85"]);
    expect(result.ok && result.value.items[0]!.atS).toBe(
      format === "plain" ? null : format === "srt" ? 8.5 : 5,
    );
  });
  test("stamps that run backward are asked about, and an hour more does not stop it", () => {
    const result = readNarration("[9:00] 12 miles done.\n[1:00] 14 miles done.\n[61:00] 20 miles done.");
    expect(result.ok && result.value.questions.map(({ kind }) => kind)).toEqual(["stamps"]);
    expect(result.ok && result.value.items.length).toBe(3);
  });
  test("that holds nothing, or too much, says what to do", () => {
    expect(readNarration(" \n ")).toMatchObject({ ok: false, problems: [{ code: "nothing-said" }] });
    expect(readNarration("x".repeat(1_000_001))).toMatchObject({
      ok: false,
      problems: [{ code: "too-long" }],
    });
    expect(read("A film about bread and how it is baked.").questions[0]).toMatchObject({ kind: "nothing" });
  });
  const words =
    "mile miles percent at 62 12.4 the battery is to a bar lost left and two and half hour . , ? if volts level no 1:52 -".split(
      " ",
    );
  test("of any words is read without breaking, and says the same twice", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...words), { maxLength: 60 }), (said) => {
        const text = said.join(" ");
        const once = readNarration(text, { format: "plain" });
        expect(readNarration(text, { format: "plain" })).toEqual(once);
        if (!once.ok) return;
        for (const { place, words: own } of [...once.value.items, ...once.value.left])
          expect(
            once.value.spoken[place.piece]!.text.slice(place.from, place.to).startsWith(own.slice(0, 3)),
          ).toBe(true);
      }),
      { numRuns: 400 },
    );
  });
  test.each([
    ["srt", srt],
    ["vtt", vtt],
    ["stamped", stamped],
  ] as const)("as %s, however it is damaged, is read or refused", (format, text) => {
    fc.assert(
      fc.property(
        fc.nat(text.length - 1),
        fc.nat(6),
        fc.string({ unit: "binary", maxLength: 6 }),
        (at, length, put) => {
          const damaged = text.slice(0, at) + put + text.slice(at + length);
          const pieces = readSpoken(damaged, format);
          if (!pieces.ok) expect(pieces.problems[0]!.sentence.length).toBeGreaterThan(20);
          // What the pieces say is read for one in five: the test above is of words in whatever order.
          else if (at % 5 === 0) expect(readNarration(damaged, { format }).ok).toBe(true);
        },
      ),
      { numRuns: MANY },
    );
  });
});
