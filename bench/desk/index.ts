import { listTests } from "#db/tests";
import { withThrowawayCluster } from "../../command/throwaway.ts";
import { addMany } from "../compare.ts";
import type { Report } from "../report.ts";
import { benchBrowser } from "./browser.ts";
import { benchDelays } from "./delays.ts";
import { benchMany } from "./many.ts";
import { running } from "./running.ts";
import { benchTelemetry } from "./telemetry.ts";

/** The desk under load: 528 and 5,028 tests, others' work, long recordings, slow browsers. */
export async function benchDesk(report: Report): Promise<readonly boolean[]> {
  const fine: boolean[] = [];
  for (const many of process.env["BENCH_MANY"] ? [Number(process.env["BENCH_MANY"])] : [500, 5000])
    fine.push(
      ...(await withThrowawayCluster(async ({ url }) => {
        const desk = await running(url, async (db) => addMany(db, await listTests(db), many));
        try {
          const shown = await benchMany(report, desk, many + 28);
          if (many > 1000) return shown;
          return [
            ...shown,
            ...(await benchBrowser(report, desk)),
            ...(await benchTelemetry(report, desk)),
            ...(await benchDelays(report, desk)),
          ];
        } finally {
          await desk.stop();
        }
      })),
    );
  return fine;
}
