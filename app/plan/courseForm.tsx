import { useRef, useState } from "react";
import { href, Form, Link } from "react-router";
import { GROUNDS } from "#core/fields";
import { buildRoute, legClimbs, PLACES, SHAPES, type Course } from "#core/route";
import { formatInput, formatQuantity, unitOf, type DimensionName, type System } from "#core/base";
import type { Stale } from "#app/ui/forms/stale";
import { Choose, Line, LiveFields, useRows } from "#ui/forms/lines";
import { StaleNotice } from "#ui/forms/staleNotice";
import { useSystem } from "#ui/system";
import { readCourseForm } from "./courseRead";
import type { FieldProblems } from "./forms";
import { ProfileChart } from "./profileChart";

const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));

/** A course as its form's texts. */
export function courseTexts(course: Course, system: System): Readonly<Record<string, string>> {
  const shown = (value: number | undefined, name: DimensionName, digits = 2) =>
    value === undefined ? "" : formatInput(value, name, unitOf(name, system), digits);
  const climbs = legClimbs(course);
  const legs = course.legs.map((leg, i) => [
    [`legs.${i}.name`, leg.name],
    [`legs.${i}.distanceM`, shown(leg.distanceM, "distance", 3)],
    [`legs.${i}.ground`, leg.ground],
    [`legs.${i}.level`, leg.level],
    [`legs.${i}.gainM`, shown(climbs[i]!.gainM, "climb", 0)],
    [`legs.${i}.lossM`, shown(climbs[i]!.lossM, "climb", 0)],
  ]);
  const places = course.places.map((place, i) => [
    [`places.${i}.name`, place.name],
    [`places.${i}.atM`, shown(place.atM, "distance")],
    [`places.${i}.kind`, place.kind],
  ]);
  return Object.fromEntries([
    ["name", course.name],
    ["shape", course.shape],
    ["laps", String(course.laps)],
    ["fetchedBy", course.fetchedBy],
    ["note", course.note],
    ["latitude", course.latitude === undefined ? "" : String(course.latitude)],
    ["longitude", course.longitude === undefined ? "" : String(course.longitude)],
    ["altitudeM", shown(course.altitudeM, "climb", 0)],
    ...legs.flat(),
    ...places.flat(),
  ]);
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
            {[
              "Name",
              `Distance, ${unitOf("distance", system)}`,
              "Ground",
              `Climb, ${unitOf("climb", system)}`,
              `Fall, ${unitOf("climb", system)}`,
              "Level",
            ].map((heading) => (
              <th scope="col" key={heading} className="pr-2">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: rows }, (_, i) => (
            <tr key={i} className="align-top">
              {(
                [
                  ["name", `Name of leg ${i + 1}`],
                  ["distanceM", `Distance of leg ${i + 1}`],
                  ["ground", `Ground of leg ${i + 1}`],
                  ["gainM", `Climb of leg ${i + 1}`],
                  ["lossM", `Fall of leg ${i + 1}`],
                  ["level", `Level of leg ${i + 1}`],
                ] as const
              ).map(([field, label]) => (
                <td key={field} className={`py-1 pr-2 ${field === "ground" ? "min-w-36" : ""}`}>
                  {field === "ground" ? (
                    <Choose name={`legs.${i}.ground`} label={label} options={same(GROUNDS)} bare />
                  ) : (
                    <Line name={`legs.${i}.${field}`} label={label} bare />
                  )}
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
      <Line name="name" label="Name" className="sm:col-span-2" />
      <Choose name="shape" label="Shape" options={same(SHAPES)} />
      <Line name="laps" label="Laps" inputMode="numeric" />
      <Line
        name="fetchedBy"
        label="Home from its end"
        hint="One way only: who fetches you, or what runs from there."
        className="sm:col-span-2"
      />
    </section>
  );
}

/** The places, a row each. */
function PlaceRows({ rows }: { readonly rows: number }) {
  return (
    <div className="grid gap-2">
      {Array.from({ length: rows }, (_, i) => (
        <div key={i} className="grid grid-cols-3 gap-2">
          <Line name={`places.${i}.name`} label={`Name of place ${i + 1}`} bare={i > 0} />
          <Line name={`places.${i}.atM`} label={`From the start, place ${i + 1}`} bare={i > 0} />
          <Choose
            name={`places.${i}.kind`}
            label={`Place ${i + 1} is where one`}
            options={same(PLACES)}
            bare={i > 0}
          />
        </div>
      ))}
    </div>
  );
}

/** Where it lies, for daylight and air. */
function SkyFields() {
  return (
    <section className="grid gap-4 sm:grid-cols-3">
      <Line name="latitude" label="Latitude" hint="For daylight, such as 53.6." inputMode="decimal" />
      <Line name="longitude" label="Longitude" hint="West is negative." inputMode="decimal" />
      <Line name="altitudeM" label="Height above the sea" hint="For the air." />
      <Line name="note" label="Remarks" className="sm:col-span-3" />
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
