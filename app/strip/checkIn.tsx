import { getFormProps, useForm, type FieldMetadata, type SubmissionResult } from "@conform-to/react";
import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo, useState } from "react";
import { Form, Link, useNavigation } from "react-router";
import { exampleOf, GROUNDS, SIDES, SIGHTING, type Field, type SightingField } from "#core/fields";
import type { Bike } from "#core/records";
import { useClientId } from "#ui/hydrated";
import { SelectField, TextField, TickField } from "#ui/forms/field";
import { Problems } from "#ui/page";
import { useSystem } from "#ui/system";
import { entryForm, TYPED, WHAT, type EntryField, type TypedEntry } from "./entryForm";

interface CheckInProps {
  readonly bike: Bike;
  readonly rideId: string;
  /** The entry a correction replaces. */
  readonly corrects: { readonly rootId: string; readonly texts: Partial<Record<EntryField, string>> } | null;
  readonly lastResult: SubmissionResult<string[]> | undefined;
  /** No entry yet: the first one is the start. */
  readonly isFirst: boolean;
  /** Told of what was typed as it is sent, so that it can be counted at once. */
  readonly onTyped: (typed: TypedEntry, supersedes: string | null) => void;
  readonly onCancel: string;
  /** What is seldom noted stays folded away. */
  readonly folded?: boolean;
}

const MORE = "mt-1 grid grid-cols-2 items-end gap-3 sm:grid-cols-4";
const SAME = { value: "", label: "as before" };

/** What may be noted besides what is most asked for. */
const GROUPS = [
  { group: "place", title: "Time and place" },
  { group: "motor", title: "Motor and meters" },
  { group: "rider", title: "Rider, road and weather" },
  { group: "whole ride", title: "Of the whole ride so far, as a recorder says it" },
] as const;

/** A field of a sighting as it is declared. */
function MoreField({
  name,
  field,
}: {
  readonly name: SightingField;
  readonly field: FieldMetadata<unknown>;
}) {
  const system = useSystem();
  const declared: Field = SIGHTING[name];
  const label = declared.label[0]!.toUpperCase() + declared.label.slice(1);
  if (declared.kind === "tick") return <TickField field={field} label={label} className="col-span-2 pb-2" />;
  if (declared.kind === "choice") {
    const words = name === "side" ? SIDES : GROUNDS;
    return (
      <SelectField
        field={field}
        label={`${label} from here`}
        options={[SAME, ...words.map((value) => ({ value, label: value }))]}
      />
    );
  }
  return (
    <TextField
      field={field}
      label={label}
      placeholder={exampleOf(declared, system)}
      {...(declared.kind === "quantity" && { inputMode: "decimal" })}
      {...(name === "note" && { className: "col-span-2 sm:col-span-4" })}
    />
  );
}

interface PartProps {
  readonly what: string;
  readonly field: (name: EntryField) => FieldMetadata<unknown>;
}

/** What is read off the gauge and the meters, as far as the entry has it. */
function GaugeFields({ bike, what, field }: PartProps & Pick<CheckInProps, "bike">) {
  const seesGauge = what !== "refill" && what !== "fullPowerEnd" && what !== "note";
  const levels = [...bike.levels, ...(bike.throttle ? ["throttle"] : [])];
  return (
    <>
      {what === "barLost" ? (
        <TextField
          field={field("bar")}
          label="Bar that went"
          placeholder={String(bike.bars)}
          inputMode="numeric"
        />
      ) : null}
      {what === "refill" ? (
        <TextField
          field={field("wallWh")}
          label="Energy at the wall"
          placeholder="412 Wh"
          inputMode="decimal"
        />
      ) : null}
      {bike.percentStep && seesGauge ? (
        <TextField field={field("percent")} label="Percent" inputMode="decimal" />
      ) : null}
      {bike.bars && what !== "barLost" && seesGauge ? (
        <TextField field={field("bars")} label="Bars" inputMode="numeric" />
      ) : null}
      {seesGauge ? (
        <>
          <TextField field={field("packVolts")} label="Volts" inputMode="decimal" />
          <TextField field={field("restMin")} label="At rest for" placeholder="10 min" />
          <SelectField
            field={field("level")}
            label="Level from here"
            options={[SAME, ...levels.map((value) => ({ value, label: value }))]}
          />
        </>
      ) : null}
    </>
  );
}

/** Everything else that can be told, in its groups. */
function MoreGroups({ what, field }: PartProps) {
  return (
    <>
      {what === "refill" ? (
        <div className={MORE}>
          <TextField field={field("charger")} label="Which charger" placeholder="charger" />
        </div>
      ) : null}
      {GROUPS.map(({ group, title }) => (
        <fieldset key={group}>
          <legend className="pt-3 text-sm text-quiet">{title}</legend>
          <div className={MORE}>
            {group === "place" ? <TextField field={field("time")} label="Time" type="time" /> : null}
            {TYPED.filter((name) => SIGHTING[name].group === group).map((name) => (
              <MoreField key={name} name={name} field={field(name)} />
            ))}
          </div>
        </fieldset>
      ))}
    </>
  );
}

interface ButtonsProps {
  readonly busy: boolean;
  readonly corrects: boolean;
  readonly onCancel: string;
}

function Buttons({ busy, corrects, onCancel }: ButtonsProps) {
  return (
    <div className="mt-4 flex gap-3">
      <button type="submit" className="button button-main" disabled={busy}>
        {corrects ? "Save the correction" : "Save"}
      </button>
      {corrects ? (
        <Link to={onCancel} className="button" preventScrollReset>
          Leave as it was
        </Link>
      ) : null}
    </div>
  );
}

/** The check-in form: distance, what the gauge says, Enter. The rest is optional and folded away. */
export function CheckIn(props: CheckInProps) {
  const { bike, rideId, corrects, lastResult, isFirst, onTyped, onCancel, folded = false } = props;
  const system = useSystem();
  const schema = useMemo(() => entryForm(system), [system]);
  const busy = useNavigation().state !== "idle";
  const entryId = useClientId();
  const [what, setWhat] = useState(corrects?.texts.what ?? (isFirst ? "start" : "checkIn"));
  const [form, fields] = useForm<Record<EntryField, string>>({
    defaultValue: corrects?.texts ?? (isFirst ? { what: "start", distanceM: "0" } : { what: "checkIn" }),
    lastResult: busy ? undefined : lastResult,
    shouldValidate: "onBlur",
    shouldRevalidate: "onInput",
    onSubmit: (_event, { submission }) => {
      if (submission?.status === "success")
        onTyped((submission as unknown as { value: TypedEntry }).value, corrects?.rootId ?? null);
    },
    onValidate: ({ formData }) =>
      parseWithZod(formData, { schema: schema as never, disableAutoCoercion: true }) as never,
  });
  const field = (name: EntryField) => fields[name] as FieldMetadata<unknown>;
  return (
    <Form
      method="post"
      {...getFormProps(form)}
      className="entering sheet p-4"
      aria-label={corrects ? "Correct a check-in" : "Add a check-in"}
      preventScrollReset
    >
      <input type="hidden" name="intent" value="entry" />
      <input type="hidden" name="rideId" value={rideId} />
      <input type="hidden" name="entryId" value={entryId} />
      {corrects ? <input type="hidden" name="supersedes" value={corrects.rootId} /> : null}
      <Problems sentences={form.errors ?? []} />
      <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-[repeat(auto-fit,minmax(7.5rem,1fr))]">
        <div
          className="col-span-2"
          onChange={(event) => setWhat((event.target as EventTarget as HTMLSelectElement).value)}
        >
          <SelectField
            field={field("what")}
            label="What"
            options={WHAT.filter(
              ({ value }) => bike.bars > 0 || (value !== "barLost" && value !== "lastBar"),
            )}
          />
        </div>
        <TextField
          field={field("distanceM")}
          label="Distance"
          placeholder={system === "imperial" ? "12.4 mi" : "20 km"}
          autoFocus={corrects !== null}
        />
        <GaugeFields bike={bike} what={what} field={field} />
      </div>
      {what === "start" ? (
        <TickField
          field={field("chargerDone")}
          label="The charger said done: the pack is full"
          className="mt-2"
        />
      ) : null}
      {what === "refill" ? (
        <TickField
          field={field("toFull")}
          label="The charger said done: the pack is full again"
          className="mt-2"
        />
      ) : null}
      <details className="mt-3" open={corrects !== null && !folded}>
        <summary className="cursor-pointer text-spruce underline underline-offset-3">
          Time, place, motor and meters, rider and weather, the whole ride
        </summary>
        <MoreGroups what={what} field={field} />
      </details>
      <Buttons busy={busy} corrects={corrects !== null} onCancel={onCancel} />
    </Form>
  );
}
