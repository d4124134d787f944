import { useRef, useState } from "react";
import { z } from "zod";
import { href, Form, Link } from "react-router";
import { recordTexts, type Texts } from "#app/ui/forms/record";
import type { RecordField, RecordFields } from "#core/fields";
import {
  buildRoute,
  COURSE_FIELDS,
  LEG_FIELDS,
  legClimbs,
  PLACE_FIELDS,
  type Course,
  type CourseLeg,
  type CoursePlace,
} from "#core/route";
import { formatQuantity, unitOf, type System } from "#core/base";
import type { Stale } from "#app/ui/forms/stale";
import { LiveField } from "#ui/forms/liveField";
import { LiveFields, useRows } from "#ui/forms/lines";
import { StaleNotice } from "#ui/forms/staleNotice";
import { useSystem } from "#ui/system";
import { readCourseForm } from "./courseRead";
import type { FieldProblems } from "./forms";
import { ProfileChart } from "./profileChart";

/** What a course's form holds: its own fields, legs and places by their rows. */
const FORM_FIELDS: RecordFields = {
  ...COURSE_FIELDS,
  legs: { schema: z.unknown(), label: "Legs", typed: { as: "record", of: LEG_FIELDS } },
  places: { schema: z.unknown(), label: "Places", typed: { as: "record", of: PLACE_FIELDS } },
};
const LEG_COLUMNS = Object.entries(LEG_FIELDS) as readonly (readonly [string, RecordField])[];

/** A course as its form's texts. */
export function courseTexts(course: Course, system: System): Readonly<Record<string, string>> {
  const climbs = legClimbs(course);
  const within = (prefix: string, texts: Texts) =>
    Object.entries(texts).map(([key, text]) => [`${prefix}.${key}`, text] as const);
  return {
    ...recordTexts<Course>(COURSE_FIELDS, course, system),
    ...Object.fromEntries([
      ...course.legs.flatMap((leg, i) =>
        within(`legs.${i}`, recordTexts<CourseLeg>(LEG_FIELDS, { ...leg, ...climbs[i]! }, system)),
      ),
      ...course.places.flatMap((place, i) =>
        within(`places.${i}`, recordTexts<CoursePlace>(PLACE_FIELDS, place, system)),
      ),
    ]),
  };
}

interface CourseFormProps {
  /** As it was kept or read; null for one to be typed. */
  readonly course: Course | null;
  /** The server's answer to what was sent. */
  readonly problems: FieldProblems;
  readonly save: string;
  /** Version of the course as it was opened; a new one has none. */
  readonly version?: number | undefined;
  /** What is stored, when it was changed meanwhile. */
  readonly stale?: Stale | null;
}

/** The legs, a row each. */
function LegTable({ rows }: { readonly rows: number }) {
  const system = useSystem();
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Legs">
      <table className="w-full min-w-2xl">
        <caption className="sr-only">Legs of the course</caption>
        <thead>
          <tr className="text-sm">
            {LEG_COLUMNS.map(([key, { label, typed }]) => (
              <th scope="col" key={key} className="pr-2">
                {label}
                {typed.as === "quantity" ? `, ${unitOf(typed.dimension, system)}` : ""}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: rows }, (_, i) => (
            <tr key={i} className="align-top">
              {LEG_COLUMNS.map(([key, { label, typed }]) => (
                <td key={key} className={`py-1 pr-2 ${typed.as === "choice" ? "min-w-36" : ""}`}>
                  <LiveField name={`legs.${i}.${key}`} label={`${label} of leg ${i + 1}`} bare />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What it is called and how it runs. */
function NameFields() {
  return (
    <section className="grid gap-4 sm:grid-cols-3">
      <LiveField name="name" className="sm:col-span-2" />
      <LiveField name="shape" />
      <LiveField name="laps" />
      <LiveField name="fetchedBy" className="sm:col-span-2" />
    </section>
  );
}

/** The places, a row each. */
function PlaceRows({ rows }: { readonly rows: number }) {
  return (
    <div className="grid gap-2">
      {Array.from({ length: rows }, (_, i) => (
        <div key={i} className="grid grid-cols-3 gap-2">
          <LiveField name={`places.${i}.name`} label={`Name of place ${i + 1}`} bare={i > 0} />
          <LiveField name={`places.${i}.atM`} label={`From the start, place ${i + 1}`} bare={i > 0} />
          <LiveField name={`places.${i}.kind`} label={`Place ${i + 1} is where one`} bare={i > 0} />
        </div>
      ))}
    </div>
  );
}

/** Where it lies, for daylight and air. */
function SkyFields() {
  return (
    <section className="grid gap-4 sm:grid-cols-3">
      <LiveField name="latitude" />
      <LiveField name="longitude" />
      <LiveField name="altitudeM" />
      <LiveField name="note" className="sm:col-span-3" />
    </section>
  );
}

/** The course as it stands. */
function DrawnCourse({
  course,
  way,
}: {
  readonly course: Course;
  readonly way: ReturnType<typeof buildRoute>;
}) {
  const system = useSystem();
  return (
    <section className="sheet p-4">
      <ProfileChart course={course} />
      <p className="mt-1 text-sm text-quiet">
        {formatQuantity(way.lapM, "distance", system)} a lap,{" "}
        {formatQuantity(way.lengthM, "distance", system)} in all, {formatQuantity(way.gainM, "climb", system)}{" "}
        climb.
      </p>
    </section>
  );
}

/** A course typed leg by leg, or a track's painted with ground and level; drawn as it is typed. */
export function CourseForm({ course, problems: sent, save, version, stale = null }: CourseFormProps) {
  const system = useSystem();
  const form = useRef<HTMLFormElement>(null);
  const [drawn, setDrawn] = useState(course);
  const [typed, setTyped] = useState<FieldProblems | null>(null);
  const legs = useRows(course?.legs.length ?? 0, course ? 0 : 3);
  const places = useRows(course?.places.length ?? 0, 1);
  const onEdit = () => {
    const read = readCourseForm(new FormData(form.current!), system);
    if (read.course) setDrawn(read.course);
    // What is not filled in yet is no error while it is typed; the sentences come when it is sent.
    if (read.course || typed) setTyped(read.problems ?? {});
  };
  const way = drawn && buildRoute(drawn);
  const problems = typed ?? sent;
  return (
    <Form
      method="post"
      ref={form}
      onInput={onEdit}
      onSubmit={(event) => {
        const read = readCourseForm(new FormData(event.currentTarget), system);
        setTyped(read.problems ?? {});
        if (!read.course) event.preventDefault();
      }}
      className="grid grid-cols-[minmax(0,1fr)] gap-6"
    >
      {stale ? <StaleNotice stale={stale} form={form} /> : null}
      {version === undefined ? null : (
        <input type="hidden" name="version" value={stale?.version ?? version} />
      )}
      <LiveFields
        of={FORM_FIELDS}
        values={course ? courseTexts(course, system) : { shape: "loop", laps: "1" }}
        problems={problems}
      >
        {drawn && way ? <DrawnCourse course={drawn} way={way} /> : null}
        <NameFields />
        <section>
          <h2 className="mb-1">Legs, once round or the way out</h2>
          <p className="mb-2 text-sm text-quiet">
            {drawn?.profile
              ? "The track gives climb and slope; split it here and paint each leg with its ground and level. The last leg reaches to the end."
              : "Distance and climb of each leg, in the order ridden. An empty level is the plan's own."}
          </p>
          <LegTable rows={legs.rows} />
          {problems["legs"] ? <p className="mt-1 text-sm text-rust">{problems["legs"]}</p> : null}
          <button type="button" className="button button-plain" onClick={legs.more}>
            Another leg
          </button>
        </section>
        <section>
          <h2 className="mb-1">Places on the way out</h2>
          <p className="mb-2 text-sm text-quiet">Where one can stop, be fetched, drink or shelter.</p>
          <PlaceRows rows={places.rows} />
          <button type="button" className="button button-plain" onClick={places.more}>
            Another place
          </button>
        </section>
        <SkyFields />
        <input type="hidden" name="profile" value={course?.profile ? JSON.stringify(course.profile) : ""} />
      </LiveFields>
      <div className="flex gap-3">
        <button type="submit" className="button button-main">
          {save}
        </button>
        <Link to={href("/plan")} className="button">
          Back
        </Link>
      </div>
    </Form>
  );
}
