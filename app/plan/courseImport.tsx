import { useEffect, useRef, useState } from "react";
import { href, data, Form, redirect } from "react-router";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { uploadedText } from "#app/ui/forms/upload.server";
import type { CourseAsk, CourseTold } from "#app/workers/course.worker";
import { readCourseGpx, type CourseRead } from "#core/io";
import type { Result } from "#core/base";
import { saveCourse } from "#db/plans";
import { FileField } from "#ui/forms/fileField";
import { Page, Problems } from "#ui/page";
import { CourseForm } from "./courseForm";
import { readCourseForm } from "./courseRead";
import type { FieldProblems } from "./forms";
import type { Route } from "./+types/courseImport";

const LIMIT_BYTES = 40 * 1024 * 1024;

/** Keeps the course as painted; without script the file itself comes, and is read here. */
export async function action({ request, context }: Route.ActionArgs) {
  const form = await request.formData();
  const refuse = (sentences: readonly string[], problems: FieldProblems = {}) =>
    data({ sentences, problems }, { status: 400 });
  let course;
  if (form.has("file")) {
    const text = await uploadedText(form.get("file"), LIMIT_BYTES);
    if (!text.ok) return refuse(text.problems.map(({ sentence }) => sentence));
    const read = readCourseGpx(text.value.text, text.value.name.replace(/\.gpx$/i, ""));
    if (!read.ok) return refuse(read.problems.map(({ sentence }) => sentence));
    course = read.value.course;
  } else {
    const read = readCourseForm(form, systemOf(request));
    if (!read.course) return refuse([], read.problems);
    course = read.course;
  }
  const id = madeId(request);
  const change = await saveCourse(context.get(dbContext), id, course);
  return redirect(afterChange(href("/plan/courses/:courseId", { courseId: id }), change));
}

/** Reads a file in a worker; its progress as a share, and what it read. */
function useCourseReader() {
  const worker = useRef<Worker | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [read, setRead] = useState<Result<CourseRead> | null>(null);
  const stop = () => {
    worker.current?.terminate();
    worker.current = null;
    setShare(null);
  };
  useEffect(() => () => worker.current?.terminate(), []);
  const start = (file: File) => {
    stop();
    setRead(null);
    setShare(0);
    worker.current = new Worker(new URL("../workers/course.worker.ts", import.meta.url), { type: "module" });
    worker.current.onmessage = ({ data: told }: MessageEvent<CourseTold>) => {
      if ("share" in told) setShare(told.share);
      else {
        setRead(told.read);
        stop();
      }
    };
    worker.current.postMessage({ file } satisfies CourseAsk);
  };
  return { share, read, start, stop };
}

export default function CourseImport({ actionData }: Route.ComponentProps) {
  const { share, read, start, stop } = useCourseReader();
  const sentences =
    read && !read.ok ? read.problems.map(({ sentence }) => sentence) : (actionData?.sentences ?? []);
  return (
    <Page
      title="A course from a track"
      line="A recorded ride or a planned way as GPX. Heights are smoothed; ground and level are painted on it."
    >
      <div className="grid max-w-4xl gap-6 p-4 md:p-6">
        <Form
          method="post"
          encType="multipart/form-data"
          onChange={(event) => {
            const file = (event.target as unknown as HTMLInputElement).files?.[0];
            if (file && file.size <= LIMIT_BYTES) start(file);
          }}
        >
          <FileField
            name="file"
            label="GPX file"
            accept=".gpx,application/gpx+xml"
            limitBytes={LIMIT_BYTES}
            hint="Nothing leaves this machine."
            problem={null}
          />
          <noscript>
            <button type="submit" className="button button-main mt-3">
              Read it
            </button>
          </noscript>
        </Form>
        {share === null ? null : (
          <div className="flex items-center gap-3" role="status">
            <progress max={1} value={share} className="w-64 accent-spruce" aria-label="Reading the track" />
            <button type="button" className="button" onClick={stop}>
              Cancel
            </button>
          </div>
        )}
        <Problems sentences={sentences} title={sentences.length ? "It was not read" : ""} />
        {read?.ok ? (
          <>
            {read.value.notices.map((notice) => (
              <p key={notice} className="text-ochre">
                {notice}
              </p>
            ))}
            <CourseForm
              course={read.value.course}
              problems={actionData?.problems ?? {}}
              save="Save the course"
            />
          </>
        ) : null}
      </div>
    </Page>
  );
}
