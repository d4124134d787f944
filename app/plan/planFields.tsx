import type { Bike } from "#core/records";
import type { Plan } from "#core/planning";
import { LiveField } from "#ui/forms/liveField";
import { Choose } from "#ui/forms/lines";
import type { ReactNode } from "react";
import { MethodFields, MethodLists } from "./methodFields";

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

const options = (rows: readonly Named[], none?: string) => [
  ...(none === undefined ? [] : [{ value: "", label: none }]),
  ...rows.map(({ id, name }) => ({ value: id, label: name })),
];

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

/** Level, speed and what the rider puts in; a throttle knows neither level nor effort. */
function RiddenGroup({ plan, bike, assumed }: Omit<PlanFieldsProps, "choices">) {
  const throttle = plan.method.drive === "throttle";
  const levels = bike.levels.map((level) => ({ value: level, label: level }));
  return (
    <Group title="How it is ridden" open>
      {throttle ? (
        <input type="hidden" name="level" value={plan.level} />
      ) : (
        <LiveField name="level" options={[{ value: "", label: "the middle one" }, ...levels]} />
      )}
      <LiveField name="speedMps" assumed={assumed["speed"] ?? ""} />
      {throttle ? (
        <input type="hidden" name="effort" value={plan.effort} />
      ) : (
        <>
          <LiveField name="effort" />
          <LiveField name="bpm" />
          <LiveField name="riderW" assumed={assumed["rider"] ?? ""} />
        </>
      )}
      <LiveField name="stopsPerMi" assumed={assumed["stops"] ?? ""} />
    </Group>
  );
}

/** Everything a plan can be told, in the order of the work. */
export function PlanFields({ plan, bike, choices, assumed }: PlanFieldsProps) {
  return (
    <div className="grid gap-4">
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <LiveField name="title" />
        <LiveField name="day" />
        <LiveField name="startsAt" />
        <Choose
          name="courseId"
          label="Course"
          options={options(choices.courses, "a plain 5-mile loop")}
          className="col-span-full"
        />
        <LiveField name="laps" assumed="as the course" />
        <Choose name="riderId" label="Rider" options={options(choices.riders, "not chosen")} />
        <Choose name="setUpId" label="Set-up" options={options(choices.setUps, "not chosen")} />
        <Choose name="packId" label="Pack" options={options(choices.packs)} />
      </div>
      <RiddenGroup plan={plan} bike={bike} assumed={assumed} />
      <Group title="Weather" open>
        <LiveField name="airTempC" assumed={assumed["air"] ?? ""} />
        <LiveField name="packTempC" />
        <LiveField name="windMps" assumed={assumed["wind"] ?? ""} />
        <LiveField name="windFromDeg" />
      </Group>
      <Group title="Charge and reserve">
        <LiveField name="startPercent" />
        <LiveField name="reserve" />
        <LiveField name="chargeFromPercent" />
        <LiveField name="chargerA" assumed="2 A" />
        <LiveField name="chargedBy" />
        <LiveField name="days" />
      </Group>
      <Group title="Method">
        <LiveField name="question" />
        <LiveField name="method.name" />
        <input type="hidden" name="method.school" value={plan.method.school} />
        <MethodFields within="method." />
      </Group>
      <Group title="Lists and clock">
        <MethodLists within="method." />
        <LiveField name="zone" />
        <LiveField name="dark" />
      </Group>
    </div>
  );
}
