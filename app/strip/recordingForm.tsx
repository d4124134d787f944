import { Form, useNavigation } from "react-router";
import type { RideRow, TestLine } from "#db/tests";
import { FileField } from "#ui/forms/fileField";
import { Page } from "#ui/page";

interface RecordingFormProps {
  readonly title: string;
  /** What the recording gives, after the test's name. */
  readonly gives: string;
  readonly label: string;
  readonly accept: string;
  readonly hint: string;
  readonly save: string;
  readonly limitBytes: number;
  readonly test: TestLine;
  readonly rides: readonly RideRow[];
  readonly rideId: string;
  /** Said beside a ride that has such a recording. */
  readonly replaces: (ride: RideRow) => string;
  readonly problem: string | null;
}

/** Brings one file in beside one ride: a track, or a logger's samples. */
export function RecordingForm(props: RecordingFormProps) {
  const { title, gives, label, accept, hint, save, limitBytes, test, rides, rideId, replaces, problem } =
    props;
  const busy = useNavigation().state !== "idle";
  return (
    <Page title={title} line={`${test.bikeName}, ${test.test.title}: ${gives}`}>
      <Form method="post" encType="multipart/form-data" className="grid max-w-xl gap-5 p-4 md:p-6">
        <FileField
          name="file"
          label={label}
          accept={accept}
          limitBytes={limitBytes}
          hint={hint}
          problem={problem}
        />
        <label className="block text-sm font-medium">
          Ride
          <select name="rideId" defaultValue={rideId} className="input mt-1">
            {rides.map((ride) => (
              <option key={ride.id} value={ride.id}>
                {ride.name}
                {replaces(ride)}
              </option>
            ))}
          </select>
        </label>
        <div>
          <button type="submit" className="button button-main" disabled={busy}>
            {busy ? "Reading ..." : save}
          </button>
        </div>
      </Form>
    </Page>
  );
}
