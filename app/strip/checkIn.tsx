import { getFormProps, useForm, type FieldMetadata, type SubmissionResult } from "@conform-to/react";
import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo, useState } from "react";
import { Form, Link, useNavigation } from "react-router";
import { GROUNDS } from "#core/log";
import type { Bike } from "#core/records";
import { useClientId } from "#ui/alive";
import { SelectField, TextField, TickField } from "#ui/field";
import { Problems } from "#ui/page";
import { useSystem } from "#ui/system";
import { entryForm, WHAT, type EntryField } from "./entryForm";

interface CheckInProps {
  readonly bike: Bike;
  readonly rideId: string;
  /** The entry a correction replaces. */
  readonly corrects: { readonly rootId: string; readonly texts: Partial<Record<EntryField, string>> } | null;
  readonly lastResult: SubmissionResult<string[]> | undefined;
  /** No entry yet: the first one is the start. */
  readonly isFirst: boolean;
  readonly onCancel: string;
}

/** The check-in form: distance, what the gauge says, Enter. The rest is optional and folded away. */
export function CheckIn({ bike, rideId, corrects, lastResult, isFirst, onCancel }: CheckInProps) {
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
    onValidate: ({ formData }) =>
      parseWithZod(formData, { schema: schema as never, disableAutoCoercion: true }) as never,
  });
  const field = (name: EntryField) => fields[name] as FieldMetadata<unknown>;
  const levels = [...bike.levels, ...(bike.throttle ? ["throttle"] : [])];
  const same = { value: "", label: "as before" };
  return (
    <Form
      method="post"
      {...getFormProps(form)}
      className="sheet p-4"
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
          className="col-span-2 sm:col-span-1 sm:min-w-40"
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
        {what === "barLost" ? (
          <TextField
            field={field("bar")}
            label="Bar that went"
            placeholder={String(bike.bars)}
            inputMode="numeric"
          />
        ) : null}
        {bike.percentStep ? <TextField field={field("percent")} label="Percent" inputMode="decimal" /> : null}
        {bike.bars && what !== "barLost" ? (
          <TextField field={field("bars")} label="Bars" inputMode="numeric" />
        ) : null}
        <TextField field={field("packVolts")} label="Volts" inputMode="decimal" />
        <TextField field={field("restMin")} label="At rest for" placeholder="10 min" />
        <SelectField
          field={field("level")}
          label="Level from here"
          options={[same, ...levels.map((value) => ({ value, label: value }))]}
        />
      </div>
      {what === "start" ? (
        <TickField
          field={field("chargerDone")}
          label="The charger said done: the pack is full"
          className="mt-2"
        />
      ) : null}
      <details className="mt-3" open={corrects !== null}>
        <summary className="cursor-pointer text-spruce underline underline-offset-3">
          Time, ground, display, load, note
        </summary>
        <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
          <TextField field={field("time")} label="Time" type="time" />
          <TextField field={field("displayM")} label="Distance by display" />
          <SelectField
            field={field("ground")}
            label="Ground from here"
            options={[same, ...GROUNDS.map((value) => ({ value, label: value }))]}
          />
          <TextField field={field("amps")} label="Amps" inputMode="decimal" />
          <TextField field={field("speedMps")} label="Speed" />
          <TextField field={field("rangeGuessM")} label="Display's miles left" />
          <TickField field={field("underLoad")} label="Volts read under load" className="col-span-2 pt-5" />
          <TextField field={field("note")} label="Note" className="col-span-2 sm:col-span-4" />
        </div>
      </details>
      <div className="mt-4 flex gap-3">
        <button type="submit" className="button button-main" disabled={busy}>
          {corrects ? "Keep the correction" : "Keep"}
        </button>
        {corrects ? (
          <Link to={onCancel} className="button" preventScrollReset>
            Leave as it was
          </Link>
        ) : null}
      </div>
    </Form>
  );
}
