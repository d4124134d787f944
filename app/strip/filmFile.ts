import { dbContext } from "#app/context";
import { fileHeaders, refusedFile } from "#app/services/files.server";
import { fileName } from "#core/io";
import { systemOf } from "#app/ui/systemCookie";
import { momentOf, stopwatchAt } from "#core/base";
import { writeCaptions, writeChapters } from "#core/io";
import { filmOf } from "#core/telling";
import { exportedTest } from "./exported.server";
import type { Route } from "./+types/filmFile";

const TYPES = { vtt: "text/vtt", srt: "application/x-subrip", txt: "text/plain" } as const;
type Format = keyof typeof TYPES;
const isFormat = (text: string): text is Format => text in TYPES;

/**
 * Captions (VTT, SRT) or chapters (text) for a film of the ride: tied to its clock by one moment, what the clock said
 * (`clock`) when the film was at (`film`); without these the film begins with the ride.
 */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const { format } = params;
  if (!isFormat(format)) return refusedFile("Captions are had as vtt or srt, chapters as txt.", 404);
  const { line, zone, results, refusal } = await exportedTest(context.get(dbContext), params.testId);
  if (!results) return refusedFile(refusal ?? "");
  const search = new URL(request.url).searchParams;
  const [clock, film] = [search.get("clock")?.trim() ?? "", search.get("film")?.trim() ?? ""];
  const firstS = results.course.marks.find(({ timeS }) => timeS !== null)?.timeS ?? null;
  if (firstS === null)
    return refusedFile("No entry of this log has a time: nothing says where it stands in a film.");
  const atMs = clock === "" ? firstS * 1000 : momentOf(line.test.day, clock, zone);
  const intoS = film === "" ? 0 : stopwatchAt(film);
  if (Number.isNaN(atMs)) return refusedFile(`“${clock}” is no time of day: type 10:20 or 10:20:15.`, 400);
  if (intoS === null) return refusedFile(`“${film}” is no place in a film: type 1:05 or 1:02:07.`, 400);
  const system = systemOf(request);
  const { cues, chapters } = filmOf(results, atMs / 1000 - intoS, system);
  const title = `${line.bikeName} ${line.test.title}${format === "txt" ? " chapters" : ""}`;
  return new Response(format === "txt" ? writeChapters(chapters) : writeCaptions(cues, format), {
    headers: fileHeaders(TYPES[format], fileName(title, format)),
  });
}
