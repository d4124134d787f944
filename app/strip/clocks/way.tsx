import { Form, useNavigation } from "react-router";
import { GROUNDS } from "#core/fields";
import { fixed, formatQuantity, unitOf } from "#core/base";
import type { Clocks } from "#app/services/recordings/clocks";
import type { SteadyUse } from "#core/analysis";
import { useClientId } from "#ui/hydrated";
import { useSystem } from "#ui/system";
import { spanSaid } from "../files/told";

interface PaintProps {
  readonly rideId: string;
  /** Lines that were added, or what was typed and cannot be read; null before anything was sent. */
  readonly answer: { readonly done: number; readonly problem: string | null } | null;
}

/** What the recorder says of the whole, its points beside its own sums. */
export function WayTable({ way }: { readonly way: NonNullable<Clocks["way"]> }) {
  const system = useSystem();
  const { sums } = way;
  const rows = [
    [
      "Way",
      formatQuantity(way.wholeM, "distance", system),
      sums?.distanceM === undefined ? "" : formatQuantity(sums.distanceM, "distance", system),
    ],
    ["Time in motion", spanSaid(way.movingS), sums?.movingS === undefined ? "" : spanSaid(sums.movingS)],
    [
      "Climb",
      way.gainM === null ? "no heights" : formatQuantity(way.gainM, "climb", system),
      sums?.gainM === undefined ? "" : formatQuantity(sums.gainM, "climb", system),
    ],
    ["Stops", `${way.stands.length}, ${spanSaid(way.stoodS)} in all`, ""],
  ] as const;
  return (
    <div className="relative overflow-x-auto">
      <table className="table">
        <caption className="sr-only">What the recorder's points give, and what it says itself</caption>
        <thead>
          <tr>
            <th scope="col">By the recorder</th>
            <th scope="col" className="number">
              its points
            </th>
            <th scope="col" className="number">
              its own sum
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, points, own]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td className="number">{points}</td>
              <td className="number">{own || "—"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Speeds that were held and what they took: rows for the bike's road load. */
export function SteadyTable({ steady }: { readonly steady: readonly SteadyUse[] }) {
  const system = useSystem();
  if (steady.length === 0) return null;
  return (
    <div className="relative overflow-x-auto">
      <table className="table">
        <caption className="pb-1 text-left font-bold">Speeds that were held on level road</caption>
        <thead>
          <tr>
            <th scope="col">Level</th>
            <th scope="col">Ground</th>
            <th scope="col" className="number">
              Speed
            </th>
            <th scope="col" className="number">
              Energy
            </th>
            <th scope="col" className="number">
              Times
            </th>
          </tr>
        </thead>
        <tbody>
          {steady.map(({ level, ground, speedMps, whPerM, windows }) => (
            <tr key={`${level}/${ground}/${speedMps}`}>
              <th scope="row">{level || "—"}</th>
              <td>{ground}</td>
              <td className="number">{formatQuantity(speedMps, "speed", system)}</td>
              <td className="number">{formatQuantity(whPerM.mean, "energyPerDistance", system)}</td>
              <td className="number">{fixed(windows, 0)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Part of the way painted as one ground. */
export function PaintForm({ rideId, answer }: PaintProps) {
  const system = useSystem();
  const busy = useNavigation().state !== "idle";
  const batchId = useClientId();
  const unit = unitOf("distance", system);
  return (
    <Form method="post" preventScrollReset className="grid max-w-2xl gap-3" aria-label="Ground by hand">
      <input type="hidden" name="intent" value="paint" />
      <input type="hidden" name="rideId" value={rideId} />
      <input type="hidden" name="batchId" value={batchId} />
      <h2 className="text-base font-bold">Ground by hand</h2>
      <p className="text-sm text-quiet">
        Where the log did not say what it went over: two lines are added to it, where the ground begins and
        where what was before goes on.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        {(["from", "to"] as const).map((name) => (
          <label key={name} className="grid text-sm font-medium">
            {name === "from" ? "From" : "to"}
            <input
              name={name}
              inputMode="decimal"
              autoComplete="off"
              required
              placeholder={`${name === "from" ? "2.5" : "4.1"} ${unit}`}
              className="input mt-1 max-w-32"
            />
          </label>
        ))}
        <label className="grid text-sm font-medium">
          it was
          <select name="ground" className="input mt-1">
            {GROUNDS.map((ground) => (
              <option key={ground}>{ground}</option>
            ))}
          </select>
        </label>
        <button className="button" disabled={busy}>
          Paint it
        </button>
      </div>
      {answer?.problem ? (
        <p role="alert" className="text-rust">
          {answer.problem}
        </p>
      ) : null}
      <p role="status" className="text-quiet">
        {answer?.done
          ? `${answer.done === 1 ? "One line was" : `${answer.done} lines were`} added to the log.`
          : ""}
      </p>
    </Form>
  );
}
