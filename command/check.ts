import { countOf } from "#core/base";
import { listDamage, setRowAside } from "#db/check";
import { connect } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { checkAnalyses } from "#app/services/checkAnalyses.server";
import { deskCluster } from "./cluster.ts";
import { sourceHash } from "./build.ts";
import { MIGRATIONS } from "./paths.ts";
import { runningHere } from "./running.ts";
import { say } from "./say.ts";

/**
 * `check` reads every stored row by its schema, and reckons every cached analysis anew; `check --set-aside` keeps unreadable
 * rows aside and forgets analyses that differ. Exit code 1 while something is wrong.
 */
export async function check(args: readonly string[]): Promise<number> {
  const aside = args.includes("--set-aside");
  const keepRunning = runningHere();
  const cluster = await deskCluster();
  await migrateDatabase(cluster.url, MIGRATIONS);
  const { db, close } = connect(cluster.url, 4);
  try {
    const damaged = await listDamage(db);
    for (const row of damaged) {
      say(`${row.table} ${row.id} “${row.label}”: ${row.sentences.join(" ")}`);
      if (aside) say(`  ${await setRowAside(db, row)}`);
    }
    say(
      damaged.length === 0
        ? "Every stored row can be read."
        : `${countOf(damaged.length, "row")} could not be read${aside ? "" : "; ./barometron check --set-aside keeps them aside"}.`,
    );
    const { checked, differ } = await checkAnalyses(db, sourceHash(), aside);
    for (const { title, why } of differ) say(`analysis of “${title}”: ${why}`);
    say(
      `${checked} cached analyses were reckoned anew: ${differ.length === 0 ? "all agree" : `${differ.length} differ${aside ? ", and were forgotten" : ""}`}.`,
    );
    return (damaged.length === 0 && differ.length === 0) || aside ? 0 : 1;
  } finally {
    await close();
    if (!keepRunning) cluster.stop();
  }
}
