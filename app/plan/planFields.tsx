import { type Bike, DRIVES, EFFORTS } from "#core/records";
import { END_NAMES, ENDS } from "#core/fields";
import { QUESTIONS, PLANNED_READINGS, UNTILS, type Plan } from "#core/planning";
import { Area, Choose, Line, Tick, Ticks } from "#ui/forms/lines";
import type { ReactNode } from "react";

interface Named {
  readonly id: string;
  readonly name: string;
}

export interface PlanChoices {
  readonly packs: readonly Named[];
  readonly setUps: readonly Named[];
  readonly riders: readonly Named[];
  readonly courses: readonly Named[];
}

const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));
const options = (rows: readonly Named[], none?: string) => [
  ...(none === undefined ? [] : [{ value: "", label: none }]),
  ...rows.map(({ id, name }) => ({ value: id, label: name })),
];

const wide = "col-span-2";

function Group({
  title,
  open = false,
  children,
}: {
  readonly title: string;
  readonly open?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <details open={open} className="border-t border-rule pt-3">
      <summary className="cursor-pointer font-bold">{title}</summary>
      <div className="mt-3 grid grid-cols-2 gap-x-4 gap-y-3">{children}</div>
    </details>
  );
}

interface PlanFieldsProps {
  readonly plan: Plan;
  readonly bike: Bike;
  readonly choices: PlanChoices;
  /** What is assumed where nothing is typed, as the forecast took it. */
  readonly assumed: Readonly<Record<string, string>>;
}

/** How the plan tests. */
function MethodGroup({ plan }: { readonly plan: Plan }) {
  return (
    <Group title="Method">
      <Choose
        name="question"
        label="Question"
        options={QUESTIONS.map(({ id, asks }) => ({ value: id, label: asks }))}
        className={wide}
      />
      <Line name="methodName" label="Method" />
      <Choose name="drive" label="Driven by" options={same(DRIVES)} />
      <input type="hidden" name="school" value={plan.method.school} />
      <Choose name="until" label="Ridden until" options={same(UNTILS)} />
      <Line name="share" label="Share of the charge" hint="Where it is ridden to one." />
      <Line name="everyM" label="Check in every" />
      <Tick name="atQuarters" label="and at quarters of the charge" />
      <Ticks
        name="taken"
        label="Readings taken"
        options={same(PLANNED_READINGS)}
        chosen={plan.method.taken}
        className={wide}
      />
      <Ticks
        name="ends"
        label="Ends that count"
        options={ENDS.map((end) => ({ value: end, label: END_NAMES[end] }))}
        chosen={plan.method.ends}
        className={wide}
      />
      <Line name="compareA" label="Compare" hint="Such as: slick tyres. Empty: one ride." />
      <Line name="compareB" label="with" />
      <Line name="pairs" label="Runs of each" inputMode="numeric" />
      <Line name="wanted" label="Difference worth finding" hint="Such as 1 Wh/mi." />
    </Group>
  );
}

/** Everything a plan can be told, in the order of the work. */
export function PlanFields({ plan, bike, choices, assumed }: PlanFieldsProps) {
  const throttle = plan.method.drive === "throttle";
  return (
    <div className="grid gap-4">
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <Line name="title" label="Name of the plan" className={wide} />
        <Line name="day" label="Day" type="date" />
        <Line name="startsAt" label="Starts at" type="time" />
        <Choose
          name="courseId"
          label="Course"
          options={options(choices.courses, "a plain 5-mile loop")}
          className={wide}
        />
        <Line name="laps" label="Laps" assumed="as the course" inputMode="numeric" />
        <Choose name="riderId" label="Rider" options={options(choices.riders, "not chosen")} />
        <Choose name="setUpId" label="Set-up" options={options(choices.setUps, "not chosen")} />
        <Choose name="packId" label="Pack" options={options(choices.packs)} />
      </div>
      <Group title="How it is ridden" open>
        {throttle ? (
          <input type="hidden" name="level" value={plan.level} />
        ) : (
          <Choose
            name="level"
            label="Level"
            options={[{ value: "", label: "the middle one" }, ...same(bike.levels)]}
          />
        )}
        <Line name="speedMps" label="Speed held" assumed={assumed["speed"] ?? ""} />
        {throttle ? (
          <input type="hidden" name="effort" value={plan.effort} />
        ) : (
          <>
            <Choose name="effort" label="Rider's effort" options={same(EFFORTS)} />
            <Line name="bpm" label="or heart rate" hint="On the rider's effort line." inputMode="numeric" />
            <Line name="riderW" label="or watts" inputMode="numeric" assumed={assumed["rider"] ?? ""} />
          </>
        )}
        <Line name="stopsPerMi" label="Stops a mile" inputMode="decimal" assumed={assumed["stops"] ?? ""} />
      </Group>
      <Group title="Weather" open>
        <Line name="airTempC" label="Air" assumed={assumed["air"] ?? ""} />
        <Line name="packTempC" label="Pack" hint="Empty: as the air." />
        <Line name="windMps" label="Wind" assumed={assumed["wind"] ?? ""} />
        <Line name="windFromDeg" label="from" hint="N, SW, or degrees." />
      </Group>
      <Group title="Charge and reserve">
        <Line name="startPercent" label="Starts at, %" inputMode="numeric" />
        <Line name="reserve" label="Kept back" hint="Such as 20 %." />
        <Line name="chargeFromPercent" label="Before the charge, %" inputMode="numeric" />
        <Line name="chargerA" label="Charger gives" assumed="2 A" />
        <Line name="chargedBy" label="Charged by, the evening before" type="time" />
        <Line name="days" label="Days on one charge" inputMode="numeric" />
      </Group>
      <MethodGroup plan={plan} />
      <Group title="Lists and clock">
        <Area name="hold" label="Held constant, one a line" className={wide} />
        <Area name="ready" label="Made ready" className={wide} />
        <Area name="bring" label="Brought along" className={wide} />
        <Line name="methodNote" label="Remark" className={wide} />
        <Line name="zone" label="Time zone" hint="By its name, or +01:00 an hour ahead of UTC." />
        <Tick name="dark" label="Riding in the dark is meant" />
      </Group>
    </div>
  );
}
