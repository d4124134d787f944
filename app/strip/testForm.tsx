import type { SubmissionResult } from "@conform-to/react";
import { useMemo } from "react";
import { z } from "zod";
import { GROUNDS } from "#core/fields";
import { formatInput, unitOf, type DimensionName, type System } from "#core/base";
import {
  DRIVES,
  EFFORTS,
  SCHOOLS,
  testFields,
  windSense,
  utcOffsetSchema,
  type Bike,
  type PackRecord,
  type Rider,
  type SetUp,
  type Test,
} from "#core/records";
import { compassText, compassWritten } from "#app/ui/compass";
import { choice, numberText, pencilText, quantityText, readInto, words } from "#app/ui/formText";
import { SelectField, TextField } from "#ui/field";
import { SaveForm } from "#ui/saveForm";
import { useSystem } from "#ui/system";

/** How far ahead of the server's clock a day may lie: the widest time zone. */
const AHEAD_MS = 14 * 3600 * 1000;

const withLinks = testFields.extend({
  utcOffset: utcOffsetSchema.optional(),
  packId: z.uuid("Choose the pack."),
  secondPackId: z.uuid().nullable(),
  setUpId: z.uuid().nullable(),
  riderId: z.uuid().nullable(),
});

/** The conditions form: a test's own fields and what it links to. A day in the future is refused. */
export const testForm = (system: System, nowMs: number) =>
  readInto(
    z.object({
      title: choice,
      school: choice,
      drive: choice,
      day: choice,
      airTempC: quantityText("temperature", system),
      packTempC: quantityText("temperature", system),
      wind: words,
      course: words,
      firstLevel: words,
      firstGround: choice,
      windMps: quantityText("speed", system),
      windFromDeg: compassText,
      effort: choice,
      riderW: numberText,
      bpm: numberText,
      stops: numberText,
      altitudeM: quantityText("climb", system),
      utcOffset: choice,
      packId: choice,
      secondPackId: choice.transform((id) => id ?? null),
      setUpId: choice.transform((id) => id ?? null),
      riderId: choice.transform((id) => id ?? null),
      pencil: pencilText,
    }),
    withLinks
      .superRefine(windSense)
      .refine(({ packId, secondPackId }) => packId !== secondPackId, {
        path: ["secondPackId"],
        message: "That is the first pack again: choose the other, or none.",
      })
      .refine(({ day }) => !(Date.parse(`${day}T00:00:00Z`) > nowMs + AHEAD_MS), {
        path: ["day"],
        message: "That day lies in the future: type the day the test was ridden.",
      }),
  );

const FIELDS = [
  "title",
  "school",
  "drive",
  "day",
  "airTempC",
  "packTempC",
  "wind",
  "course",
  "firstLevel",
  "firstGround",
  "windMps",
  "windFromDeg",
  "effort",
  "riderW",
  "bpm",
  "stops",
  "altitudeM",
  "utcOffset",
  "packId",
  "secondPackId",
  "setUpId",
  "riderId",
] as const;

interface Linked<T> {
  readonly id: string;
  readonly name: T;
}

interface TestFormProps {
  readonly bike: Bike;
  readonly packs: readonly (PackRecord & { id: string })[];
  readonly setUps: readonly (SetUp & { id: string })[];
  readonly riders: readonly (Rider & { id: string })[];
  readonly test: Test;
  readonly links: {
    readonly packId: string;
    readonly secondPackId: string | null;
    readonly setUpId: string | null;
    readonly riderId: string | null;
  };
  readonly nowMs: number;
  /** The clock of the notes, asked for when the test is made. */
  readonly clock?: string;
  /** Version of the test as it was opened; a new one has none. */
  readonly version?: number;
  /** Id of a test that is being made. */
  readonly newId?: string;
  readonly lastResult: SubmissionResult<string[]> | undefined;
  readonly save: string;
  readonly back: string;
}

const options = (items: readonly Linked<string>[], none?: string) => [
  ...(none ? [{ value: "", label: none }] : []),
  ...items.map(({ id, name }) => ({ value: id, label: name })),
];
const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));

/** A test's conditions as the form's texts. */
export function testTexts(test: Test, links: TestFormProps["links"], system: System) {
  const shown = (value: number | undefined, name: DimensionName) =>
    value === undefined ? "" : formatInput(value, name, unitOf(name, system));
  const plain = (value: number | undefined) => (value === undefined ? "" : String(value));
  const { pencil: _pencil, ...fields } = test;
  return {
    ...fields,
    airTempC: shown(test.airTempC, "temperature"),
    packTempC: shown(test.packTempC, "temperature"),
    windMps: shown(test.windMps, "speed"),
    windFromDeg: compassWritten(test.windFromDeg),
    effort: test.effort ?? "",
    riderW: plain(test.riderW),
    bpm: plain(test.bpm),
    stops: plain(test.stops),
    altitudeM: shown(test.altitudeM, "climb"),
    packId: links.packId,
    secondPackId: links.secondPackId ?? "",
    setUpId: links.setUpId ?? "",
    riderId: links.riderId ?? "",
  };
}

/** Method, conditions, and who and what was tested. */
export function TestForm({
  bike,
  packs,
  setUps,
  riders,
  test,
  links,
  nowMs,
  clock,
  version,
  newId,
  lastResult,
  save,
  back,
}: TestFormProps) {
  const system = useSystem();
  const schema = useMemo(() => testForm(system, nowMs), [system, nowMs]);
  const levels = [...bike.levels, ...(bike.throttle ? ["throttle"] : [])];
  return (
    <SaveForm
      schema={schema}
      names={FIELDS}
      values={{ ...testTexts(test, links, system), utcOffset: clock ?? "" }}
      version={version}
      hidden={newId ? { newId } : {}}
      lastResult={lastResult}
      save={save}
      back={back}
    >
      {(fields) => (
        <>
          <section className="grid gap-4 sm:grid-cols-2">
            <TextField
              field={fields.title}
              label="Title"
              hint="Such as: Part charge, levee loop."
              autoFocus
              className="sm:col-span-2"
            />
            <TextField field={fields.day} label="Day" type="date" />
            {clock === undefined ? null : (
              <TextField
                field={fields.utcOffset}
                label="Clock of the notes, from UTC"
                hint="+01:00 runs an hour ahead. Tracks are in UTC."
                pencil
              />
            )}
            <SelectField field={fields.school} label="School of method" options={same(SCHOOLS)} />
            <SelectField field={fields.drive} label="Driven by" options={same(DRIVES)} />
            <SelectField field={fields.packId} label="Pack" options={options(packs)} />
            {packs.length > 1 ? (
              <SelectField
                field={fields.secondPackId}
                label="Second pack beside it"
                options={options(packs, "none")}
              />
            ) : null}
            <SelectField field={fields.setUpId} label="Set-up" options={options(setUps, "not noted")} />
            <SelectField field={fields.riderId} label="Rider" options={options(riders, "not noted")} />
          </section>
          <section className="grid gap-4 sm:grid-cols-2">
            <h2 className="sm:col-span-2">Conditions</h2>
            <TextField
              field={fields.airTempC}
              label="Air temperature"
              hint="Such as 12 C or 54 F. Cold packs yield less."
            />
            <TextField
              field={fields.packTempC}
              label="Pack temperature"
              hint="Empty when it was as the air."
            />
            <TextField field={fields.wind} label="Wind" hint="Such as: light, from the west." />
            <TextField field={fields.course} label="Course" hint="Such as: levee loop, three laps." />
            <SelectField
              field={fields.firstLevel}
              label="Level at the start"
              options={[{ value: "", label: "not noted" }, ...same(levels)]}
            />
            <SelectField field={fields.firstGround} label="Ground at the start" options={same(GROUNDS)} />
          </section>
          <section className="grid gap-4 sm:grid-cols-2">
            <h2 className="sm:col-span-2">For bringing it to other conditions</h2>
            <p className="text-sm text-quiet sm:col-span-2">
              What is left empty is taken from the log, else assumed, and makes the figure less sure.
            </p>
            <SelectField
              field={fields.effort}
              label="What the rider put in"
              options={[{ value: "", label: "not noted: easy is assumed" }, ...same(EFFORTS)]}
            />
            <TextField field={fields.riderW} label="or in watts" hint="Such as 80." inputMode="decimal" />
            <TextField
              field={fields.bpm}
              label="or as a heart rate held"
              hint="Read by the rider's own line of beats and watts."
              inputMode="decimal"
            />
            <TextField field={fields.stops} label="Stops in all" hint="Such as 12." inputMode="numeric" />
            <TextField
              field={fields.windMps}
              label="How strong the wind was"
              hint="Such as 8 mph; 0 for none."
            />
            <TextField
              field={fields.windFromDeg}
              label="Where it came from"
              hint="N, NE and so on, or degrees."
            />
            <TextField
              field={fields.altitudeM}
              label="Height above the sea"
              hint="Thin air is easier to ride in."
            />
          </section>
        </>
      )}
    </SaveForm>
  );
}
