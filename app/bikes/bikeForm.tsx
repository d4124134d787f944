import type { SubmissionResult } from "@conform-to/react";
import { useMemo } from "react";
import type { Bike } from "#core/records";
import { SelectField, TextField, TickField } from "#ui/field";
import { SaveForm } from "#ui/saveForm";
import { useSystem } from "#ui/system";
import { BIKE_FIELDS, bikeForm, bikeTexts } from "./forms";

interface BikeFormProps {
  readonly bike: Bike;
  readonly lastResult: SubmissionResult<string[]> | undefined;
  readonly save: string;
  readonly back: string;
}

/** Everything about a bike but its packs and set-ups. */
export function BikeForm({ bike, lastResult, save, back }: BikeFormProps) {
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
      back={back}
    >
      {(fields) => (
        <>
          <section className="grid gap-4 sm:grid-cols-2">
            <TextField field={fields.name} label="Name" autoFocus />
            <TextField
              field={fields.massKg}
              label="Weight with its pack"
              hint="Such as 26 kg or 57 lb. Empty when not weighed."
              inputMode="text"
            />
            <TextField
              field={fields.what}
              label="What it is"
              hint="Frame, wheels, brakes, comfort parts."
              className="sm:col-span-2"
            />
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
              field={fields.levels}
              label="Assist levels, least first"
              hint="The bike's own names, with commas."
              pencil={pencil("levels")}
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
            <TextField
              field={fields.meterStepV}
              label="Volts shown in steps of"
              pencil={pencil("meterStepV")}
              inputMode="decimal"
            />
          </section>
          <section className="grid gap-4 sm:grid-cols-2">
            <h2 className="sm:col-span-2">The maker's claim</h2>
            <TextField field={fields.claimLowM} label="Range, from" />
            <TextField
              field={fields.claimHighM}
              label="to"
              hint="The same figure twice when it claims one."
            />
          </section>
        </>
      )}
    </SaveForm>
  );
}
