import { useId } from "react";
import { useSystem } from "#ui/system";
import { MeterTable } from "./meterTable";
import { clockSaid, lookSaid } from "./told";
import type { ChosenFile, Files } from "./useFiles";

interface FileCardProps {
  readonly each: ChosenFile;
  readonly zone: string;
  readonly choose: Files["choose"];
  readonly onDrop: () => void;
  /** Goes on where such a file is looked over: check-ins, speech. */
  readonly onLookOver: () => void;
}

const STATE = { looking: "being read …", looked: "", keeping: "being kept …", kept: "kept" } as const;
const LOOK_OVER: Readonly<Record<string, string>> = {
  checkIns: "Look over its columns",
  narration: "Go through what was said",
};

/** A clock's offset, as it was found or as it is typed. */
function OffsetField({ each, choose }: Pick<FileCardProps, "each" | "choose">) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-sm font-medium">
        Add to its times
      </label>
      <input
        id={id}
        value={each.chosen.offset ?? ""}
        placeholder="0 s"
        autoComplete="off"
        className="input mt-1 max-w-40"
        onChange={(event) => choose(each, { offset: event.target.value })}
      />
    </div>
  );
}

/** What can be chosen of a meter's file: its name, its sign, its columns. */
function MeterChoices({ each, choose }: Pick<FileCardProps, "each" | "choose">) {
  const { look, chosen } = each;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
      {look?.table ? (
        <MeterTable table={look.table} onColumns={(columns) => choose(each, { columns })} />
      ) : null}
      <div className="flex flex-wrap items-end gap-4">
        <label className="grid text-sm font-medium">
          Meter
          <input
            value={chosen.logger ?? ""}
            placeholder="logger"
            maxLength={40}
            autoComplete="off"
            className="input mt-1 max-w-48"
            onChange={(event) => choose(each, { logger: event.target.value })}
          />
        </label>
        <label className="grid text-sm font-medium">
          What is drawn
          <select
            value={chosen.drawnIsMinus === undefined ? "" : chosen.drawnIsMinus ? "yes" : "no"}
            className="input mt-1"
            onChange={(event) => {
              const { drawnIsMinus: _anew, ...rest } = chosen;
              const minus = event.target.value;
              choose({ ...each, chosen: rest }, minus === "" ? {} : { drawnIsMinus: minus === "yes" });
            }}
          >
            <option value="">by most of it</option>
            <option value="no">has no sign</option>
            <option value="yes">is written with a minus</option>
          </select>
        </label>
      </div>
    </div>
  );
}

/** One file: what it is, what it would add, how its clock stands, and what can be chosen of it. */
export function FileCard({ each, zone, choose, onDrop, onLookOver }: FileCardProps) {
  const system = useSystem();
  const { file, look, is, problems } = each;
  const kind = look?.format?.id;
  const isTable = kind === "logger" || kind === "checkIns";
  const wrong = [...problems, ...(look?.problems ?? [])];
  const lookOver = kind && wrong.length === 0 ? LOOK_OVER[kind] : undefined;
  return (
    <li className="sheet grid grid-cols-[minmax(0,1fr)] gap-3 p-4" aria-busy={is === "looking"}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="wrap-anywhere text-base font-bold">{file.name}</h2>
        <span className="text-sm text-quiet" role="status">
          {STATE[is]}
        </span>
      </div>
      {look?.format ? (
        <p>
          {look.isThere ? "Just this file is there already. " : ""}
          This is {look.format.name}. {wrong.length ? "" : lookSaid(look, zone, system).join(" ")}
        </p>
      ) : null}
      {wrong.length ? (
        <div role="alert" className="text-rust">
          {wrong.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
      ) : null}
      {look?.clock && is !== "kept" ? (
        <div className="grid gap-2 border-l-4 border-spruce pl-3">
          <p>{clockSaid(look.clock)}</p>
          <OffsetField each={each} choose={choose} />
        </div>
      ) : null}
      {isTable && is !== "kept" ? (
        <label className="max-w-sm text-sm font-medium">
          Its rows are
          <select
            value={kind}
            className="input mt-1"
            onChange={(event) =>
              choose(each, { format: event.target.value === "logger" ? "logger" : "checkIns" })
            }
          >
            <option value="checkIns">check-ins that somebody noted</option>
            <option value="logger">samples of a meter or logger</option>
          </select>
        </label>
      ) : null}
      {kind === "logger" && is !== "kept" ? <MeterChoices each={each} choose={choose} /> : null}
      {is === "kept" ? null : (
        <div className="flex flex-wrap gap-3">
          {lookOver ? (
            <button type="button" className="button" onClick={onLookOver}>
              {lookOver}
            </button>
          ) : null}
          <button
            type="button"
            className="button button-plain"
            onClick={onDrop}
            aria-label={`Leave out ${file.name}`}
          >
            Leave it out
          </button>
        </div>
      )}
    </li>
  );
}
