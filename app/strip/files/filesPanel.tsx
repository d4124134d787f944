import { useState, type DragEvent } from "react";
import { href, Link, useNavigate, useSubmit } from "react-router";
import { FileCard } from "./fileCard";
import { canBeKept, useFiles, type ChosenFile } from "./useFiles";

interface FilesPanelProps {
  readonly testId: string;
  readonly ride: { readonly id: string; readonly name: string; readonly zone: string };
}

const ACCEPT =
  ".csv,.tsv,.txt,text/csv,.gpx,application/gpx+xml,.tcx,.fit,.srt,.vtt,text/vtt,image/jpeg,image/png";

/** Where files are dropped or chosen. */
function DropField({ onFiles }: { readonly onFiles: (files: readonly File[]) => void }) {
  const [over, setOver] = useState(false);
  const stop = (event: DragEvent, isOver: boolean) => {
    event.preventDefault();
    setOver(isOver);
  };
  return (
    <div
      className={`max-w-3xl border-2 border-dashed p-5 ${over ? "border-spruce bg-sheet" : "border-rule"}`}
      onDragOver={(event) => stop(event, true)}
      onDragLeave={(event) => stop(event, false)}
      onDrop={(event) => {
        stop(event, false);
        onFiles([...event.dataTransfer.files]);
      }}
    >
      <label className="block font-medium">
        Files of this ride
        <input
          type="file"
          multiple
          accept={ACCEPT}
          className="input mt-1 py-1.5"
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            event.target.value = "";
            onFiles(files);
          }}
        />
      </label>
      <p className="mt-2 text-sm text-quiet">
        Drop them here, several at once: recordings as GPX, TCX or FIT, a meter's CSV, a CSV of check-ins,
        captions of a film, photographs of the display. What each is is seen from how it begins, and nothing
        is kept before you say so.
      </p>
    </div>
  );
}

/** Any files of a ride: each is told for what it is, and kept with the others or looked over on a page of its own. */
export function FilesPanel({ testId, ride }: FilesPanelProps) {
  const { files, add, choose, keepAll, drop } = useFiles(testId, ride);
  const navigate = useNavigate();
  const submit = useSubmit();
  const ready = files.filter(canBeKept).length;
  const busy = files.some(({ is }) => is === "looking" || is === "keeping");
  const kept = files.filter(({ is }) => is === "kept").length;
  const tableOf = (file: File) => {
    const form = new FormData();
    form.set("rideId", ride.id);
    form.set("file", file);
    void submit(form, { method: "post", encType: "multipart/form-data" });
  };
  const lookOver = async ({ file, look }: ChosenFile) => {
    if (look?.format?.id === "checkIns") return tableOf(file);
    const said = { name: file.name, text: await file.text() };
    return navigate(`${href("/strip/:testId/narration", { testId })}?ride=${ride.id}`, { state: { said } });
  };
  const onFiles = async (chosen: readonly File[]) => {
    const looks = await add(chosen);
    const [look] = looks;
    // A table of check-ins alone has nothing else to be shown here.
    if (
      files.length === 0 &&
      looks.length === 1 &&
      look?.format?.id === "checkIns" &&
      look.problems.length === 0
    )
      tableOf(chosen[0]!);
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5 p-4 md:p-6">
      <DropField onFiles={(chosen) => void onFiles(chosen)} />
      {files.length ? (
        <ul className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-4" aria-label="Files that were chosen">
          {files.map((each) => (
            <FileCard
              key={each.id}
              each={each}
              zone={ride.zone}
              choose={choose}
              onDrop={() => drop(each.id)}
              onLookOver={() => void lookOver(each)}
            />
          ))}
        </ul>
      ) : null}
      {files.length ? (
        <div className="flex flex-wrap items-center gap-3">
          <button
            type="button"
            className="button button-main"
            disabled={busy || ready === 0}
            onClick={() => void keepAll()}
          >
            {busy ? "Reading …" : ready === 1 ? "Import one file" : `Import ${ready} files`}
          </button>
          {kept > 0 && !busy ? (
            <>
              <Link to={`${href("/strip/:testId/clocks", { testId })}?ride=${ride.id}`} className="button">
                See the clocks
              </Link>
              <Link to={href("/strip/:testId", { testId })} className="button">
                To the strip
              </Link>
            </>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
