import type { SubmissionResult } from "@conform-to/react";
import { useMemo } from "react";
import { z } from "zod";
import { recordField, type RecordFields } from "#core/fields";
import type { System } from "#core/base";
import {
  TEST_FIELDS,
  testFields,
  windSense,
  zoneSchema,
  type Bike,
  type PackRecord,
  type Rider,
  type SetUp,
  type Test,
} from "#core/records";
import { recordForm, recordTexts, type OwnField, type OwnFields } from "#app/ui/forms/record";
import { choice } from "#app/ui/forms/formText";
import { RecordForm } from "#ui/forms/recordForm";
import { useSystem } from "#ui/system";

/** How far ahead of the server's clock a day may lie: the widest time zone. */
const AHEAD_MS = 14 * 3600 * 1000;

interface Links {
  readonly packId: string;
  readonly secondPackId: string | null;
  readonly setUpId: string | null;
  readonly riderId: string | null;
}

const CLOCK = {
  zone: recordField({
    schema: zoneSchema.optional(),
    label: "Clock of the notes",
    hint: "Its time zone by name, or +01:00 an hour ahead of UTC. Tracks are in UTC.",
    typed: { as: "name" },
  }),
};
const LINKS = {
  packId: recordField({ schema: z.uuid("Choose the pack."), label: "Pack", typed: { as: "name" } }),
  secondPackId: recordField({
    schema: z.uuid().nullable(),
    label: "Second pack beside it",
    typed: { as: "own" },
  }),
  setUpId: recordField({ schema: z.uuid().nullable(), label: "Set-up", typed: { as: "own" } }),
  riderId: recordField({ schema: z.uuid().nullable(), label: "Rider", typed: { as: "own" } }),
};

const { title, day, school, drive, ...conditions } = TEST_FIELDS;
/** A test's own fields with what it links to, in the order they are asked for. */
const FIELDS = { title, day, ...CLOCK, school, drive, ...LINKS, ...conditions } satisfies RecordFields;

const optionalLink = (key: keyof Links): OwnField<Partial<Links>> => ({
  read: () => choice.transform((id) => id ?? null),
  written: (links) => links[key] ?? "",
});
const OWN: OwnFields<Partial<Links>> = {
  secondPackId: optionalLink("secondPackId"),
  setUpId: optionalLink("setUpId"),
  riderId: optionalLink("riderId"),
};

const withLinks = testFields.extend({
  zone: CLOCK.zone.schema,
  packId: LINKS.packId.schema,
  secondPackId: LINKS.secondPackId.schema,
  setUpId: LINKS.setUpId.schema,
  riderId: LINKS.riderId.schema,
});

/** The conditions form: a test's own fields and what it links to. A day in the future is refused. */
export const testForm = (system: System, nowMs: number) =>
  recordForm(
    FIELDS,
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
    system,
    OWN as never,
  );

/** A test's conditions as the form's texts. */
export const testTexts = (test: Test, links: Links, system: System, clock?: string) =>
  recordTexts(FIELDS, { ...test, ...links, zone: clock }, system, OWN as never);

interface TestFormProps {
  readonly bike: Bike;
  readonly packs: readonly (PackRecord & { id: string })[];
  readonly setUps: readonly (SetUp & { id: string })[];
  readonly riders: readonly (Rider & { id: string })[];
  readonly test: Test;
  readonly links: Links;
  readonly nowMs: number;
  /** The clock of the notes, asked for when the test is made. */
  readonly clock?: string;
  /** Version of the test as it was opened; a new one has none. */
  readonly version?: number;
  /** Id of a test that is being made. */
  readonly newId?: string;
  readonly lastResult: SubmissionResult<string[]> | undefined;
  readonly save: string;
  /** Other ways to go on once it is saved. */
  readonly ways?: readonly (readonly [next: string, words: string])[];
  readonly back: string;
}

interface Named {
  readonly id: string;
  readonly name: string;
}
const options = (items: readonly Named[], none?: string) => [
  ...(none ? [{ value: "", label: none }] : []),
  ...items.map(({ id, name }) => ({ value: id, label: name })),
];

const NOTES = {
  "For bringing it to other conditions":
    "What is left empty is taken from the log, else assumed, and makes the figure less sure.",
};

/** Method, conditions, and who and what was tested. */
export function TestForm(props: TestFormProps) {
  const { bike, packs, setUps, riders, test, links, nowMs, clock, newId, version, ...form } = props;
  const system = useSystem();
  const schema = useMemo(() => testForm(system, nowMs), [system, nowMs]);
  const { zone, secondPackId, ...always } = FIELDS;
  const asked: RecordFields = {
    ...always,
    ...(clock !== undefined && { zone }),
    ...(packs.length > 1 && { secondPackId }),
  };
  const inOrder = Object.fromEntries(Object.entries(FIELDS).filter(([key]) => key in asked));
  const levels = [...bike.levels, ...(bike.throttle ? ["throttle"] : [])];
  return (
    <RecordForm
      {...form}
      of={inOrder}
      schema={schema}
      values={testTexts(test, links, system, clock)}
      version={version}
      hidden={newId ? { newId } : {}}
      focus="title"
      pencil={["zone"]}
      notes={NOTES}
      options={{
        packId: options(packs),
        secondPackId: options(packs, "none"),
        setUpId: options(setUps, "not noted"),
        riderId: options(riders, "not noted"),
        firstLevel: [
          { value: "", label: "not noted" },
          ...levels.map((level) => ({ value: level, label: level })),
        ],
      }}
    />
  );
}
