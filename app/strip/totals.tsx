import { getFormProps, useForm, type FieldMetadata, type SubmissionResult } from "@conform-to/react";
import { parseWithZod } from "@conform-to/zod/v4";
import { href, data, Form, Link, redirect } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { foldLog, TOTAL_FIELDS, totalOf, type LiveEntry, type TotalField } from "#core/ride/log";
import { listEntries } from "#db/log";
import { findTest, listRides } from "#db/tests";
import { loadRecord } from "#db/record";
import { useClientId } from "#ui/hydrated";
import { TextField } from "#ui/forms/field";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { clientId, keepEntry } from "./log.server";
import { totalKinds, totalsForm, totalText } from "./totalsForm";
import type { Route } from "./+types/totals";

const GONE = "There is no such test.";

const noted = (log: readonly LiveEntry[]) =>
  [...log].reverse().find(({ struck, body }) => !struck && body.kind === "totals") ?? null;

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const rides = await Promise.all(
    (await listRides(db, line.id)).map(async ({ id, name, track }) => {
      const log = foldLog(await listEntries(db, id));
      const totals = TOTAL_FIELDS.map((field) => [field, totalOf(log, field)] as const);
      return {
        id,
        name,
        hasTrack: track !== null,
        corrects: noted(log)?.rootId ?? "",
        totals: Object.fromEntries(totals) as Record<TotalField, number | null>,
      };
    }),
  );
  return { line, rides };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, GONE);
  const record = found(await loadRecord(db, testId), GONE);
  const form = await request.formData();
  const ride = found(
    (await listRides(db, testId)).find(({ id }) => id === form.get("rideId")),
    "There is no such ride in this test.",
  );
  const system = systemOf(request);
  const submission = parseWithZod(form, { schema: totalsForm(system), disableAutoCoercion: true });
  if (submission.status !== "success")
    return data({ ride: ride.id, reply: submission.reply() }, { status: 400 });
  const log = foldLog(await listEntries(db, ride.id));
  const entry = {
    id: clientId(form.get("entryId")),
    rideId: ride.id,
    at: null,
    typed: { time: "", body: submission.value },
    supersedes: noted(log)?.rootId ?? null,
  };
  await keepEntry(db, record, entry, system);
  return redirect(href("/strip/:testId", { testId }));
}

function RideTotals({
  ride,
  only,
  lastResult,
}: {
  readonly ride: Route.ComponentProps["loaderData"]["rides"][number];
  readonly only: boolean;
  readonly lastResult: SubmissionResult<string[]> | undefined;
}) {
  const system = useSystem();
  const entryId = useClientId();
  const [form, fields] = useForm<Record<TotalField, string>>({
    id: ride.id,
    defaultValue: Object.fromEntries(
      totalKinds(system).map((kind) => [kind.field, totalText(kind, ride.totals[kind.field], system)]),
    ),
    lastResult,
    shouldValidate: "onBlur",
    shouldRevalidate: "onInput",
    onValidate: ({ formData }) =>
      parseWithZod(formData, { schema: totalsForm(system) as never, disableAutoCoercion: true }) as never,
  });
  return (
    <Form method="post" {...getFormProps(form)} className="sheet p-4" aria-label={`Totals of ${ride.name}`}>
      <input type="hidden" name="rideId" value={ride.id} />
      <input type="hidden" name="entryId" value={entryId} />
      {only ? null : <h2 className="mb-2">{ride.name}</h2>}
      {ride.hasTrack ? (
        <p className="mb-3 text-sm text-quiet">
          This ride has a track: riding time, speeds and climb are taken from it. What is typed here counts
          where the track says nothing.
        </p>
      ) : null}
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
        {totalKinds(system).map(({ field, label, example }) => (
          <TextField
            key={field}
            field={fields[field] as FieldMetadata<unknown>}
            label={label}
            placeholder={example}
          />
        ))}
      </div>
      <button type="submit" className="button button-main mt-4">
        Save
      </button>
    </Form>
  );
}

/** What a recorder says of each ride, read once at its end. */
export default function Totals({ loaderData: { line, rides }, actionData }: Route.ComponentProps) {
  return (
    <Page
      title={`Ride totals of ${line.test.title}`}
      line="Off the recorder, read once: the ride's riding time, speeds, climb and heart rate. All of them may stay empty."
      next={
        <Link to={href("/strip/:testId", { testId: line.id })} className="button">
          Strip
        </Link>
      }
    >
      <div className="grid max-w-3xl gap-4 p-4 md:p-6">
        {rides.map((ride) => (
          <RideTotals
            key={ride.id}
            ride={ride}
            only={rides.length === 1}
            lastResult={actionData?.ride === ride.id ? actionData.reply : undefined}
          />
        ))}
      </div>
    </Page>
  );
}
