import { readCourseGpx, type CourseRead, decodeText } from "#core/io";
import type { Result } from "#core/base";

/** Reads a GPX file into a course in the background, telling how far it is. */
export interface CourseAsk {
  readonly file: File;
}
export type CourseTold = { readonly share: number } | { readonly read: Result<CourseRead> };

self.onmessage = async ({ data: { file } }: MessageEvent<CourseAsk>) => {
  const tell = (told: CourseTold) => self.postMessage(told);
  tell({ share: 0.02 });
  const text = decodeText(new Uint8Array(await file.arrayBuffer()), "file");
  if (!text.ok) return tell({ read: text });
  tell({ share: 0.08 });
  const name = file.name.replace(/\.gpx$/i, "").slice(0, 120) || "course";
  tell({ read: readCourseGpx(text.value, name, (share) => tell({ share: 0.08 + 0.9 * share })) });
};
