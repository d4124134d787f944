import type { SubmissionResult } from "@conform-to/react";
import { useMemo } from "react";
import { BIKE_FIELDS, type Bike } from "#core/records";
import { RecordForm } from "#ui/forms/recordForm";
import { useSystem } from "#ui/system";
import { bikeForm, bikeTexts } from "./forms";

interface BikeFormProps {
  readonly bike: Bike;
  readonly lastResult: SubmissionResult<string[]> | undefined;
  readonly save: string;
  readonly back: string;
  /** Version of the bike as it was opened; a new one has none. */
  readonly version?: number;
}

/** Everything about a bike but its packs and set-ups. */
export function BikeForm({ bike, version, ...form }: BikeFormProps) {
  const system = useSystem();
  const schema = useMemo(() => bikeForm(system), [system]);
  return (
    <RecordForm
      {...form}
      of={BIKE_FIELDS}
      schema={schema}
      values={bikeTexts(bike, system)}
      version={version}
      pencil={bike.pencil}
      focus="name"
    />
  );
}
