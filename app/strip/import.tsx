import { countOf } from "#core/base";
import { href, data, Form, Link, redirect, useNavigation } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { pastedText, readUpload, textOf } from "#app/ui/forms/upload.server";
import { COLUMN_FIELDS, COLUMNS, formatOf } from "#core/io";
import { appendEntries, listEntries } from "#db/log";
import { findTest, listRides } from "#db/tests";
import { loadRecord } from "#db/record";
import { useClientId, useHydrated } from "#ui/hydrated";
import { FileField } from "#ui/forms/fileField";
import { Page, Problems } from "#ui/page";
import { useSystem } from "#ui/system";
import { entriesOf, optionsOf, previewOf, type Preview } from "./import.server";
import { FilesPanel } from "./files/filesPanel";
import { clientId } from "./log.server";
import { keepRecording } from "./recording.server";
import { RidesNav } from "./ridesNav";
import type { Route } from "./+types/import";

const GONE = "There is no such test.";
/** Of a table of check-ins, and of any file, bytes. */
const LIMIT_BYTES = 2 * 1024 * 1024;
const MOST_BYTES = 30 * 1024 * 1024;
const UNKNOWN =
  "Nothing here reads such a file. Import a recording as GPX, TCX or FIT, a CSV of time, volts and amps, or a CSV of check-ins.";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const rides = await listRides(db, line.id);
  const asked = new URL(request.url).searchParams.get("ride");
  return { line, rides, ride: rides.find(({ id }) => id === asked) ?? rides.at(-1)! };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const testId = idOf(params.testId, GONE);
  const record = found(await loadRecord(db, testId), GONE);
  const { form, file: sent } = await readUpload(request, "file", MOST_BYTES);
  const ride = found(
    (await listRides(db, testId)).find(({ id }) => id === form.get("rideId")),
    "There is no such ride in this test.",
  );
  const refused = (problem: string) => data({ problem, preview: null, kept: null }, { status: 400 });
  const pasted = form.get("text");
  if (typeof pasted !== "string") {
    if (!sent.ok) return refused(sent.problems[0]!.sentence);
    const format = formatOf(sent.value.bytes);
    if (!format) return refused(UNKNOWN);
    if (format.id !== "checkIns") {
      const recording = { ...sent.value, testId, rideId: ride.id, format: format.id };
      const refusal = await keepRecording(db, recording, form, request.signal);
      if (refusal.length) return refused(`This looks like ${format.name}. ${refusal.join(" ")}`);
      return {
        problem: null,
        preview: null,
        kept: `${sent.value.name}: ${format.name}, kept beside ${ride.name}.`,
      };
    }
  }
  const file =
    typeof pasted === "string"
      ? pastedText(String(form.get("fileName") ?? ""), pasted, LIMIT_BYTES)
      : textOf(sent, LIMIT_BYTES);
  if (!file.ok) return refused(file.problems[0]!.sentence);
  const system = systemOf(request);
  const log = await listEntries(db, ride.id);
  const options = optionsOf(form, record.test.day, ride.zone, system);
  const preview = previewOf(file.value.name, file.value.text, form, options, record, log, system);
  if (!preview.ok) return refused(preview.problems[0]!.sentence);
  if (form.get("intent") !== "keep" || preview.value.problems.length)
    return { problem: null, preview: preview.value, kept: null };
  const entries = entriesOf(preview.value.rows, clientId(form.get("batchId")));
  if (!entries.ok)
    return data(
      { problem: entries.problems[0]!.sentence, preview: preview.value, kept: null },
      { status: 400 },
    );
  await appendEntries(db, ride.id, entries.value);
  return redirect(href("/strip/:testId", { testId }));
}

export default function ImportPage({ loaderData: { line, rides, ride }, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  const system = useSystem();
  const alive = useHydrated();
  const preview = actionData?.preview ?? null;
  return (
    <Page
      title="Import files"
      line={`${line.bikeName}, ${line.test.title}, ${ride.name}: recordings, a meter's samples, check-ins as a table, captions.`}
    >
      <RidesNav rides={rides} rideId={ride.id} />
      {actionData?.kept ? (
        <p role="status" className="mx-4 mt-4 max-w-xl border-l-4 border-spruce bg-sheet px-4 py-3 md:mx-6">
          {actionData.kept}{" "}
          <Link to={href("/strip/:testId", { testId: line.id })} className="underline">
            To the strip
          </Link>
        </p>
      ) : null}
      {preview ? (
        <PreviewForm key={preview.fileName} preview={preview} rideId={ride.id} busy={busy} />
      ) : alive ? (
        <>
          <Problems sentences={actionData?.problem ? [actionData.problem] : []} />
          <FilesPanel key={ride.id} testId={line.id} ride={ride} />
        </>
      ) : (
        <Form method="post" encType="multipart/form-data" className="grid max-w-xl gap-5 p-4 md:p-6">
          <input type="hidden" name="rideId" value={ride.id} />
          <FileField
            name="file"
            label="CSV of check-ins, a recording as GPX, TCX or FIT, or a logger's CSV"
            accept=".csv,.tsv,.txt,text/csv,.gpx,application/gpx+xml,.tcx,.fit"
            limitBytes={MOST_BYTES}
            hint="What it is is seen from how it begins. Of check-ins the first line names the columns, such as: miles, battery %, volts, level, note; units may stand in the names or in the cells."
            problem={actionData?.problem ?? null}
          />
          <Choices
            distanceUnit={system === "imperial" ? "mi" : "km"}
            levelHolds="from here"
            fullAtStart={false}
          />
          <div>
            <button type="submit" className="button button-main" disabled={busy}>
              {busy ? "Reading ..." : "Read it and show me"}
            </button>
          </div>
        </Form>
      )}
    </Page>
  );
}

function Choices({
  distanceUnit,
  levelHolds,
  fullAtStart,
}: {
  readonly distanceUnit: string;
  readonly levelHolds: string;
  readonly fullAtStart: boolean;
}) {
  return (
    <>
      <label className="block text-sm font-medium">
        Distances without a unit are in
        <select name="distanceUnit" defaultValue={distanceUnit} className="input mt-1">
          <option value="mi">miles</option>
          <option value="km">kilometres</option>
        </select>
      </label>
      <label className="block text-sm font-medium">
        A level or ground in a row
        <select name="levelHolds" defaultValue={levelHolds} className="input mt-1">
          <option value="from here">holds from that row on</option>
          <option value="up to here">was ridden up to that row</option>
        </select>
      </label>
      <label className="flex min-h-10 items-center gap-2">
        <input
          type="checkbox"
          name="fullAtStart"
          defaultChecked={fullAtStart}
          className="size-5 accent-spruce"
        />
        The pack was full at the first row: the charger said done
      </label>
    </>
  );
}

const SHOWN = 200;

/** The rows as they were read, each bad cell marked. */
function PreviewTable({ preview }: { readonly preview: Preview }) {
  const { table, columns, problems } = preview;
  const wrong = new Map(problems.map(({ path, sentence }) => [path, sentence]));
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label="Preview">
      <table className="table">
        <caption className="sr-only">The first rows of the file, with the field of each column</caption>
        <thead>
          <tr>
            <th scope="col">Row</th>
            {table.headings.map((heading, i) => (
              <th key={`${heading}/${i}`} scope="col" className="align-top">
                <span className="block font-bold text-ink">{heading || "(no name)"}</span>
                <select
                  name={`column${i}`}
                  defaultValue={columns[i]?.field ?? ""}
                  aria-label={`Column ${heading} is`}
                  className={`input mt-1 min-w-36 ${columns[i]?.field ? "" : "input-pencil"}`}
                >
                  <option value="">leave out</option>
                  {COLUMN_FIELDS.map((field) => (
                    <option key={field} value={field}>
                      {COLUMNS[field]!.label}
                    </option>
                  ))}
                </select>
                {columns[i]?.unit ? (
                  <span className="pencil block pt-1 text-sm">in {columns[i].unit}</span>
                ) : null}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.slice(0, SHOWN).map((cells, r) => (
            <tr key={r}>
              <th scope="row" className="text-quiet">
                {r + 2}
              </th>
              {table.headings.map((heading, i) => {
                const bad = wrong.get(`row ${r + 2}, column ${heading}`);
                return (
                  <td
                    key={i}
                    className={`whitespace-nowrap ${bad ? "font-bold text-rust underline decoration-wavy" : ""}`}
                  >
                    {cells[i]}
                    {bad ? <span className="sr-only"> cannot be read: {bad}</span> : null}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The table as read: what each column is taken to be, each bad cell marked, and nothing kept until all is well. */
function PreviewForm({
  preview,
  rideId,
  busy,
}: {
  readonly preview: Preview;
  readonly rideId: string;
  readonly busy: boolean;
}) {
  const { table, options, problems, text, fileName } = preview;
  const batchId = useClientId();
  return (
    <Form method="post" className="grid grid-cols-[minmax(0,1fr)] gap-5 p-4 md:p-6">
      <input type="hidden" name="rideId" value={rideId} />
      <input type="hidden" name="batchId" value={batchId} />
      <input type="hidden" name="fileName" value={fileName} />
      <textarea name="text" defaultValue={text} hidden readOnly />
      <p>
        <b>{fileName}</b>: {countOf(table.rows.length, "row")}.{" "}
        {problems.length
          ? "Nothing is kept until every row can be read."
          : "Every row can be read. Check the columns, then keep them."}
      </p>
      <Problems
        title={`${problems.length} to mend in the file, or choose another column`}
        sentences={problems.map(({ path, sentence }) => `${path}: ${sentence}`)}
      />
      <div className="grid max-w-3xl gap-4 sm:grid-cols-2">
        <Choices {...options} />
      </div>
      <PreviewTable preview={preview} />
      {table.rows.length > SHOWN ? <p className="text-quiet">The first {SHOWN} rows are shown.</p> : null}
      <div className="flex flex-wrap gap-3">
        <button
          type="submit"
          name="intent"
          value="keep"
          className="button button-main"
          disabled={busy || problems.length > 0}
        >
          Save {table.rows.length} check-ins
        </button>
        <button type="submit" name="intent" value="preview" className="button" disabled={busy}>
          Read again with these columns
        </button>
        <a href="" className="button">
          Another file
        </a>
      </div>
    </Form>
  );
}
