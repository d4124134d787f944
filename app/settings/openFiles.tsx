import { Form, href, useNavigation } from "react-router";
import { FileField } from "#ui/forms/fileField";
import type { BackupAnswer } from "./backups.server";

interface OpenFilesProps {
  readonly limitBytes: number;
  readonly answer: BackupAnswer | undefined;
}

/** Everything of the desk as files that other programs read, out and in. */
export function OpenFiles({ limitBytes, answer }: OpenFilesProps) {
  const busy = useNavigation().state !== "idle";
  return (
    <section className="max-w-2xl">
      <h2 className="mb-2">Everything as open files</h2>
      <p className="mb-3 text-quiet">
        One zip with all records as JSON, each test as a bundle with its readings as CSV and its tracks as
        GPX. Another desk takes it in; what it has already stays as it is there.
      </p>
      <a href={href("/settings/desk.zip")} className="button" download>
        Export the desk
      </a>
      <details className="mt-4" open={answer?.field === "zip"}>
        <summary className="cursor-pointer py-1 font-bold">Take another desk in</summary>
        <Form method="post" encType="multipart/form-data" className="mt-2 grid gap-4">
          <FileField
            name="zip"
            label="File"
            accept=".zip"
            limitBytes={limitBytes}
            hint="The zip that another desk exported. A larger one: ./barometron import FILE."
            problem={answer && !answer.done && answer.field === "zip" ? answer.sentence : null}
          />
          <button name="intent" value="takeIn" className="button justify-self-start" disabled={busy}>
            {busy ? "Working …" : "Take it in"}
          </button>
        </Form>
      </details>
    </section>
  );
}
