import { useCallback, useRef, useState } from "react";
import { href, useRevalidator } from "react-router";
import type { FormatId, MeterField } from "#core/io";
import type { Look } from "#app/services/recordings/lookAt";
import type { FileAnswer } from "./file";
import { keepPicture } from "./keepPicture";

/** How a person wants a file to be read and kept; what is left out is found out. */
export interface Chosen {
  readonly format?: FormatId;
  readonly columns?: readonly (MeterField | null)[];
  readonly drawnIsMinus?: boolean;
  readonly logger?: string;
  /** As typed. */
  readonly offset?: string;
}

/** A file that was chosen, and what became of it so far. */
export interface ChosenFile {
  readonly id: number;
  readonly file: File;
  readonly chosen: Chosen;
  readonly look: Look | null;
  readonly is: "looking" | "looked" | "keeping" | "kept";
  /** Why it is not kept. */
  readonly problems: readonly string[];
}

/** Largest file that is sent, bytes. */
const MOST_BYTES = 30 * 1024 * 1024;
const MOST_FILES = 40;

const AWAY = ["The desk did not answer: see that it runs, and choose the file again."];

/** Sends a file with what was chosen of it. */
async function post(
  where: { readonly testId: string; readonly rideId: string },
  intent: "look" | "keep",
  { file, chosen }: Pick<ChosenFile, "file" | "chosen">,
): Promise<FileAnswer> {
  const form = new FormData();
  form.set("intent", intent);
  form.set("rideId", where.rideId);
  if (chosen.format) form.set("format", chosen.format);
  if (chosen.columns) form.set("columns", JSON.stringify(chosen.columns));
  if (chosen.drawnIsMinus !== undefined) form.set("drawnIsMinus", chosen.drawnIsMinus ? "yes" : "no");
  form.set("logger", chosen.logger ?? "");
  form.set("offset", chosen.offset ?? "");
  form.set("file", file);
  const answer = await fetch(href("/strip/:testId/file", { testId: where.testId }), {
    method: "POST",
    body: form,
  }).catch(() => null);
  const told = (await answer?.json().catch(() => null)) as FileAnswer | null;
  return told && typeof told === "object" ? told : { problems: AWAY };
}

const isPicture = ({ look }: ChosenFile) => look?.format?.id === "photograph";
const isRecording = ({ look }: ChosenFile) => Boolean(look?.track ?? look?.meter);

/** Keeps a file as it is shown: a photograph as a check-in, anything else beside its ride. */
async function keep(
  where: { readonly testId: string; readonly rideId: string; readonly zone: string },
  each: ChosenFile,
): Promise<FileAnswer> {
  if (!isPicture(each)) return post(where, "keep", each);
  const problems = await keepPicture(where, each.file);
  return problems.length ? { problems } : { kept: true };
}

/** Whether a file can be kept as it is shown. */
export const canBeKept = (each: ChosenFile): boolean =>
  each.is === "looked" &&
  each.look !== null &&
  each.look.problems.length === 0 &&
  (isRecording(each) || isPicture(each)) &&
  !each.look.isThere;

/** The files a person chose for a ride: each is looked at, changed, and kept when all is well. */
export function useFiles(testId: string, ride: { readonly id: string; readonly zone: string }) {
  const { id: rideId, zone } = ride;
  const [files, setFiles] = useState<readonly ChosenFile[]>([]);
  const { revalidate } = useRevalidator();
  const next = useRef(0);
  const change = useCallback((id: number, with_: Partial<ChosenFile>) => {
    setFiles((all) => all.map((each) => (each.id === id ? { ...each, ...with_ } : each)));
  }, []);
  const look = useCallback(
    async (each: ChosenFile): Promise<Look | null> => {
      change(each.id, { is: "looking", problems: [] });
      if (each.file.size > MOST_BYTES) {
        const size = Math.round(each.file.size / 1024 / 1024);
        const problem = `It holds ${size} MB; 30 MB are the most. Export one ride at a time, or one row a second.`;
        change(each.id, { is: "looked", problems: [problem] });
        return null;
      }
      const told = await post({ testId, rideId }, "look", each);
      if (!("look" in told)) {
        change(each.id, { is: "looked", problems: "problems" in told ? told.problems : AWAY });
        return null;
      }
      const proposed = told.look.clock?.proposedS ?? 0;
      const offset = each.chosen.offset ?? (proposed === 0 ? "" : String(proposed));
      change(each.id, { is: "looked", look: told.look, chosen: { ...each.chosen, offset } });
      return told.look;
    },
    [change, testId, rideId],
  );
  /** Files that were dropped or chosen, looked at one after the other. */
  const add = useCallback(
    async (chosen: readonly File[]): Promise<readonly (Look | null)[]> => {
      const added = chosen.slice(0, MOST_FILES).map((file): ChosenFile => {
        next.current += 1;
        return { id: next.current, file, chosen: {}, look: null, is: "looking", problems: [] };
      });
      setFiles((all) => [...all, ...added]);
      const looks: (Look | null)[] = [];
      for (const each of added) looks.push(await look(each));
      return looks;
    },
    [look],
  );
  const choose = useCallback(
    (each: ChosenFile, chosen: Chosen) => {
      const changed = { ...each, chosen: { ...each.chosen, ...chosen } };
      change(each.id, { chosen: changed.chosen });
      // A name or an offset changes nothing of what is in the file.
      if ("offset" in chosen || "logger" in chosen) return;
      const { offset: _anew, ...rest } = changed.chosen;
      void look({ ...changed, chosen: rest });
    },
    [change, look],
  );
  /** Keeps all that can be: recorders first, since meters' clocks are held against theirs. */
  const keepAll = useCallback(async () => {
    const ready = files
      .filter(canBeKept)
      .sort((a, b) => Number(b.look?.track !== null) - Number(a.look?.track !== null));
    let newTrack = false;
    for (const each of ready) {
      if (newTrack && each.look?.meter && !each.look.clock?.found) {
        // The recorder that just came may tell its clock: it is shown before it is kept.
        const { offset: _anew, ...chosen } = each.chosen;
        const again = await look({ ...each, chosen });
        if (again?.clock?.proposedS) continue;
      }
      change(each.id, { is: "keeping", problems: [] });
      const told = await keep({ testId, rideId, zone }, each);
      if ("kept" in told) newTrack ||= each.look?.track !== null;
      change(
        each.id,
        "kept" in told
          ? { is: "kept" }
          : { is: "looked", problems: "problems" in told ? told.problems : AWAY },
      );
    }
    await revalidate();
  }, [files, change, look, revalidate, testId, rideId, zone]);
  const drop = useCallback((id: number) => setFiles((all) => all.filter((each) => each.id !== id)), []);
  return { files, add, choose, keepAll, drop };
}

export type Files = ReturnType<typeof useFiles>;
