import { fixed } from "#core/base";
import { href, Form, useNavigation } from "react-router";
import { FileField } from "#ui/forms/fileField";
import { Notices } from "#ui/notices";
import type { BackupAnswer } from "./backups.server";

interface BackupsProps {
  readonly files: readonly { readonly name: string; readonly at: string; readonly bytes: number }[];
  readonly notice: Parameters<typeof Notices>[0]["notices"][number] | null;
  readonly limitBytes: number;
  readonly answer: BackupAnswer | undefined;
}

const size = (bytes: number) =>
  bytes < 1024 ** 2 ? `${Math.max(1, Math.round(bytes / 1024))} kB` : `${fixed(bytes / 1024 ** 2, 1)} MB`;

const SHOWN = 10;

/** The newest backups, to be downloaded. */
function BackupTable({ files }: { readonly files: BackupsProps["files"] }) {
  return (
    <table className="table w-full text-sm">
      <caption className="sr-only">Backups, newest first</caption>
      <thead>
        <tr>
          <th scope="col">Backup, UTC</th>
          <th scope="col" className="number">
            Size
          </th>
          <th scope="col">
            <span className="sr-only">File</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {files.slice(0, SHOWN).map(({ name, at, bytes }) => (
          <tr key={name}>
            <th scope="row">{at.slice(0, 16).replace("T", " ")}</th>
            <td className="number">{size(bytes)}</td>
            <td>
              <a
                href={href("/settings/backups/:name", { name })}
                download
                aria-label={`Download the backup of ${at.slice(0, 16)}`}
              >
                Download
              </a>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Whether a backup comes back beside the desk or in its place. */
function WhereTo({ problem }: { readonly problem: (field: BackupAnswer["field"]) => string | null }) {
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 text-sm font-medium">Where to</legend>
      <label className="flex min-h-8 items-center gap-2">
        <input type="radio" name="where" value="beside" defaultChecked className="size-5 accent-spruce" />
        beside this desk, as another one
      </label>
      <label className="text-sm font-medium">
        Its name
        <input
          name="name"
          className="input mt-1"
          autoComplete="off"
          aria-invalid={problem("name") ? true : undefined}
        />
      </label>
      {problem("name") ? (
        <p role="alert" className="text-sm text-rust">
          {problem("name")}
        </p>
      ) : null}
      <label className="flex min-h-8 items-center gap-2">
        <input type="radio" name="where" value="here" className="size-5 accent-spruce" />
        in place of this desk
      </label>
      <label className="ml-7 flex min-h-8 items-center gap-2">
        <input type="checkbox" name="sure" className="size-5 accent-spruce" />
        Yes, in its place; what is here now is kept and can be put back
      </label>
      {problem("sure") ? (
        <p role="alert" className="text-sm text-rust">
          {problem("sure")}
        </p>
      ) : null}
    </fieldset>
  );
}

/** Backups: how the last one went, the files, one more, and one brought back. */
export function Backups({ files, notice, limitBytes, answer }: BackupsProps) {
  const busy = useNavigation().state !== "idle";
  const problem = (field: BackupAnswer["field"]) =>
    answer && !answer.done && answer.field === field ? answer.sentence : null;
  return (
    <section className="max-w-2xl">
      <h2 className="mb-2">Backups</h2>
      <p className="text-quiet">
        Written once a day while the desk runs, kept for a week, then one a week for two months. Each holds
        everything but what can be reckoned anew.
      </p>
      <Notices notices={notice ? [notice] : []} className="my-2" />
      {answer && (answer.done || !answer.field) ? (
        <p role="status" className={`my-2 font-bold ${answer.done ? "text-spruce" : "text-rust"}`}>
          {answer.sentence}
        </p>
      ) : null}
      <Form method="post" className="my-3">
        <button name="intent" value="backup" className="button button-main" disabled={busy}>
          {busy ? "Working …" : "Back up now"}
        </button>
      </Form>
      {files.length ? (
        <BackupTable files={files} />
      ) : (
        <p className="text-quiet">None was made yet; the first comes a minute after the start.</p>
      )}
      <details className="mt-4" open={answer?.field !== undefined}>
        <summary className="cursor-pointer py-1 font-bold">Bring a backup back</summary>
        <Form method="post" encType="multipart/form-data" className="mt-2 grid gap-4">
          <label className="block text-sm font-medium">
            Which
            <select name="backup" className="input mt-1" defaultValue={files[0]?.name ?? ""}>
              {files.map(({ name, at }) => (
                <option key={name} value={name}>
                  {at.slice(0, 16).replace("T", " ")}
                </option>
              ))}
              <option value="">a file I send</option>
            </select>
          </label>
          <FileField
            name="file"
            label="File"
            accept=".backup"
            limitBytes={limitBytes}
            hint="Only when it is a file you send. A larger one: ./barometron restore FILE."
            problem={problem("file")}
            optional
          />
          <WhereTo problem={problem} />
          <div>
            <button name="intent" value="restore" className="button" disabled={busy}>
              {busy ? "Reading it through …" : "Bring it back"}
            </button>
          </div>
        </Form>
      </details>
    </section>
  );
}
