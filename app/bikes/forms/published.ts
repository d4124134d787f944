import { z } from "zod";
import { formatInput, parseQuantity, unitOf, type System } from "#core/base";
import { type Bike } from "#core/records";
import { linesText } from "#app/ui/forms/formText";

const CLAIM =
  /^(?:([^:]+):)?\s*(?:up to|upwards of|over|more than|at least|about|around)?\s*([\d.,]+)\s*(?:(?:to|-|–)\s*([\d.,]+)\s*)?([a-z]*)\s*\+?\s*([a-z]*)\s*(?:[,;]\s*(.*))?$/i;

/** Claims, one a line: "eco: 40 to 60 mi, level road". */
export const claimsText = (system: System) =>
  linesText.transform((lines, context): Bike["claims"] => {
    const unit = unitOf("distance", system);
    const claims: Bike["claims"] = [];
    for (const line of lines) {
      const match = CLAIM.exec(line);
      const read = (text: string | undefined) =>
        text === undefined
          ? null
          : parseQuantity(`${text} ${match![4] || match![5] || unit}`, "distance", unit);
      const [low, high] = match ? [read(match[2]), read(match[3] ?? match[2])] : [null, null];
      if (!low?.ok || !high?.ok) {
        context.addIssue({
          code: "custom",
          message: `“${line}” is not a claim: type one a line, such as “eco: 40 to 60 ${unit}, level road”.`,
        });
        return z.NEVER;
      }
      if (low.value > high.value) {
        context.addIssue({
          code: "custom",
          message: `“${line}”: its upper end lies below its lower end. Swap them.`,
        });
        return z.NEVER;
      }
      claims.push({
        mode: match![1]?.trim() ?? "",
        lowM: low.value,
        highM: high.value,
        conditions: match![6]?.trim() ?? "",
      });
    }
    return claims;
  });

export const claimsWritten = (claims: Bike["claims"], system: System) =>
  claims
    .map(({ mode, lowM, highM, conditions }) => {
      const [low, high] = [lowM, highM].map((m) => formatInput(m, "distance", unitOf("distance", system)));
      const bare = low!.replace(/ \D+$/, "");
      return `${mode ? `${mode}: ` : ""}${lowM === highM ? high : `${bare} to ${high}`}${conditions ? `, ${conditions}` : ""}`;
    })
    .join("\n");

const REPORTED =
  /^(?:([^:]+):)?\s*(throttle\s+)?([\d.,]+)\s*([a-z]*)\s+(?:on|from|with)\s+([\d.,]+\s*[a-z]*)$/i;

/** Metres and feet are of a climb: nobody gives a range in them. */
const isClimb = (unit: string | undefined) => /^(m|metres?|meters?|ft|feet|foot)$/i.test(unit ?? "");

/** What others published, one a line: "Quay notes: 31 mi on 460 Wh", "throttle 22 mi on 480 Wh", or a climb, "1290 m on 640 Wh". */
export const reportedText = (system: System) =>
  linesText.transform((lines, context): Bike["reported"] => {
    const unit = unitOf("distance", system);
    const reported: Bike["reported"] = [];
    for (const line of lines) {
      const match = REPORTED.exec(line);
      const of = isClimb(match?.[4]) ? ("climb" as const) : ("range" as const);
      const dimension = of === "climb" ? "climb" : "distance";
      const distance = match && parseQuantity(`${match[3]} ${match[4] || unit}`, dimension, unit);
      const energy = match && parseQuantity(match[5]!, "energy", "Wh");
      if (!distance?.ok || !energy?.ok) {
        context.addIssue({
          code: "custom",
          message: `“${line}” is no such figure: type one a line, such as “Quay notes: 31 ${unit} on 460 Wh”, or a climb: “1290 m on 640 Wh”.`,
        });
        return z.NEVER;
      }
      reported.push({
        by: match![1]?.trim() ?? "",
        drive: match![2] ? "throttle" : "pedal",
        of,
        distanceM: distance.value,
        energyWh: energy.value,
      });
    }
    return reported;
  });

export const reportedWritten = (reported: Bike["reported"], system: System) =>
  reported
    .map(({ by, drive, of, distanceM, energyWh }) => {
      const dimension = of === "climb" ? "climb" : "distance";
      const distance = formatInput(distanceM, dimension, unitOf(dimension, system));
      return `${by ? `${by}: ` : ""}${drive === "throttle" ? "throttle " : ""}${distance} on ${formatInput(energyWh, "energy", "Wh")}`;
    })
    .join("\n");
