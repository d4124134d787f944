import type { SubmissionResult } from "@conform-to/react";
import { useMemo } from "react";
import { BAR_LOOKS, POWER_DISPLAYS, SENSORS, type Bike } from "#core/records";
import { AreaField, SelectField, TextField, TickField } from "#ui/field";
import { SaveForm } from "#ui/saveForm";
import { useSystem } from "#ui/system";
import { BIKE_FIELDS, bikeForm, bikeTexts } from "./forms";

interface BikeFormProps {
  readonly bike: Bike;
  readonly lastResult: SubmissionResult<string[]> | undefined;
  readonly save: string;
  readonly back: string;
  /** Version of the bike as it was opened; a new one has none. */
  readonly version?: number;
}

/** Everything about a bike but its packs and set-ups. */
export function BikeForm({ bike, lastResult, save, back, version }: BikeFormProps) {
  const system = useSystem();
  const schema = useMemo(() => bikeForm(system), [system]);
  const pencil = (name: string) => bike.pencil.includes(name);
  return (
    <SaveForm
      schema={schema}
      names={BIKE_FIELDS}
      values={bikeTexts(bike, system)}
      lastResult={lastResult}
      save={save}
      version={version}
      back={back}
    >
      {(fields) => (
        <>
          <section className="grid gap-4 sm:grid-cols-2">
            <TextField field={fields.name} label="Name" className="sm:col-span-2" autoFocus />
            <TextField
              field={fields.what}
              label="What it is"
              hint="Frame, wheels, drive, for whom."
              className="sm:col-span-2"
            />
            <TextField
              field={fields.massKg}
              label="Weight with its pack"
              hint="Such as 26 kg or 57 lb. Empty when not weighed."
              inputMode="text"
            />
            <TextField
              field={fields.massWithoutPackKg}
              label="Weight without it"
              hint="Tells what the pack weighs, and what a larger one would."
            />
            <TextField field={fields.brakes} label="Brakes" />
            <TextField
              field={fields.comfort}
              label="Comfort parts"
              hint="Seat-post, fork, bars, child seat."
            />
            <TextField field={fields.price} label="Price" hint="Such as 1899 EUR." />
          </section>
          <section className="grid gap-4 sm:grid-cols-2">
            <h2 className="sm:col-span-2">Motor and levels</h2>
            <SelectField
              field={fields.motor}
              label="Motor"
              pencil={pencil("motor")}
              options={[
                { value: "hub", label: "hub motor" },
                { value: "mid", label: "mid motor" },
              ]}
            />
            <TextField
              field={fields.motorW}
              label="Most power it gives, W"
              hint="By its label. With it, hills slow the forecast as they slow the bike."
              inputMode="decimal"
            />
            <SelectField
              field={fields.sensor}
              label="Pedal sensor"
              pencil={pencil("sensor")}
              options={SENSORS.map((value) => ({ value, label: value }))}
            />
            <TextField
              field={fields.assistToMps}
              label="Assist stops at"
              hint="The motor rests above it."
              pencil={pencil("assistToMps")}
            />
            <TextField
              field={fields.levels}
              label="Assist levels, least first"
              hint="Their own names, with commas; with shares of power if known: low 40 %, mid 70 %, high 100 %."
              pencil={pencil("levels")}
              className="sm:col-span-2"
            />
            <TickField field={fields.throttle} label="It has a throttle" />
            <TextField
              field={fields.wheelCircumferenceM}
              label="Wheel setting"
              hint="Circumference in the display's menu, such as 2180 mm."
            />
          </section>
          <section className="grid gap-4 sm:grid-cols-2">
            <h2 className="sm:col-span-2">Display</h2>
            <TextField
              field={fields.percentStep}
              label="Percent shown in steps of"
              hint="1, 5 or 10; 0 when it shows none."
              pencil={pencil("percentStep")}
              inputMode="decimal"
            />
            <SelectField
              field={fields.counts}
              label="The percent counts"
              pencil={pencil("counts")}
              options={[
                { value: "charge", label: "charge (most gauges)" },
                { value: "energy", label: "energy" },
              ]}
            />
            <TextField
              field={fields.bars}
              label="Bars"
              pencil={pencil("bars")}
              hint="How many; 0 when it shows none."
              inputMode="numeric"
            />
            <SelectField
              field={fields.barsAre}
              label="They are"
              options={BAR_LOOKS.map((value) => ({ value, label: value }))}
            />
            <TextField
              field={fields.meterStepV}
              label="Volts shown in steps of"
              hint="Usually 0.1 V, perhaps in a menu; 0 when it shows none."
              pencil={pencil("meterStepV")}
              inputMode="decimal"
            />
            <SelectField
              field={fields.powerShown}
              label="Power shown"
              pencil={pencil("powerShown")}
              options={POWER_DISPLAYS.map((value) => ({ value, label: value }))}
            />
          </section>
          <section className="grid gap-4 sm:grid-cols-2">
            <h2 className="sm:col-span-2">The maker&apos;s claims</h2>
            <AreaField
              field={fields.claims}
              label="Range claimed, one a line"
              hint="Mode, figure or span, and the conditions if they are stated. Such as: eco: 40 to 60 mi, level road."
              className="sm:col-span-2"
            />
            <AreaField
              field={fields.reported}
              label="What other testers found, one a line"
              hint="Whose, how far, on how much energy. Such as: Quay notes: 31 mi on 460 Wh. It counts for little, since nobody knows how it was ridden, until tests of your own are there."
              className="sm:col-span-2"
            />
          </section>
        </>
      )}
    </SaveForm>
  );
}
