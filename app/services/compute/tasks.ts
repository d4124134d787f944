import type { Database } from "#db/client";
import { analyse } from "./analyse";
import { drawCard } from "../cards/draw.server";
import { exportHere, importHere } from "../exchange.server";
import { longStrip } from "../strip/long";
import { clocksOf } from "../recordings/clocks";
import { keepFile } from "../recordings/keepFile";
import { lookAtFile } from "../recordings/lookAt";
import type { PdfAsk } from "../sheets/pdf.server";
import { testPage } from "../sheets/testPage.server";
import { picture } from "../drawing/picture.server";
import { comparisonTasks } from "../comparison/tasks.server";

/** What takes long enough to hold others up, by name. Each runs in a worker thread with a connection of its own. */
export const tasks = {
  analyse: (db: Database, { testId }: { readonly testId: string }) => analyse(db, testId),
  keepFile,
  lookAtFile,
  clocks: clocksOf,
  longStrip,
  testPage,
  // What writes PDFs is large: it is loaded when the first is asked for.
  sheetPdf: async (db: Database, ask: PdfAsk) => (await import("../sheets/pdf.server")).pdfOf(db, ask),
  picture,
  drawCard,
  exportDesk: exportHere,
  importDesk: importHere,
  ...comparisonTasks,
};
export type Tasks = typeof tasks;
export type TaskName = keyof Tasks;
export type Asked<Name extends TaskName> = Parameters<Tasks[Name]>[1];
export type Answered<Name extends TaskName> = Awaited<ReturnType<Tasks[Name]>>;
