import { data, href, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { deskDay, deskZone } from "#app/ui/clock.server";
import { madeId } from "#app/ui/network/once.server";
import { readQuick, type QuickTest } from "#core/analysis/quick";
import { plainText } from "#core/base";
import { quickNotes } from "#core/narration";
import { listBikes, listPacks, saveBike, savePack, saveRider } from "#db/bikes";
import type { Database } from "#db/client";
import { appendEntries } from "#db/log";
import { findTest, saveTest } from "#db/tests";
import { Page } from "#ui/page";
import { QuickBox } from "./quick";
import type { Route } from "./+types/quickPage";

/** Longest speech that is read here, characters: about an hour; a longer one is imported on a strip. */
const MOST_SAID = 60_000;

const LONGEST_NAME = 80;

export function loader() {
  return { day: deskDay() };
}

/** Energies of a label that are the same pack, Wh apart. */
const SAME_LABEL_WH = 1;

/** The bike of that name and its pack of that label, where the desk has them; else new ones. */
async function bikeAndPack(tx: Database, { bike, pack }: QuickTest["record"], isNamed: boolean) {
  const same = isNamed
    ? (await listBikes(tx)).find(({ name }) => name.toLowerCase() === bike.name.toLowerCase())
    : undefined;
  const bikeId = same?.id ?? uuidv7();
  if (!same) await saveBike(tx, bikeId, bike);
  const own = same ? await listPacks(tx, bikeId) : [];
  const fits = own.find(({ labelWh }) => Math.abs((labelWh ?? NaN) - (pack.labelWh ?? NaN)) <= SAME_LABEL_WH);
  const packId = fits?.id ?? uuidv7();
  if (!fits) await savePack(tx, packId, bikeId, pack);
  return { bikeId, packId };
}

/** Makes bike, pack, rider and test of a quick figure: all that nobody said is assumed. */
async function makeTest(
  db: Database,
  testId: string,
  { record }: QuickTest,
  { notes, isNamed }: { readonly notes: string; readonly isNamed: boolean },
): Promise<void> {
  const { rider, test, rides } = record;
  const rideId = uuidv7();
  const riderId = rider ? uuidv7() : null;
  await db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const { bikeId, packId } = await bikeAndPack(tx, record, isNamed);
    if (rider && riderId) await saveRider(tx, riderId, rider);
    const links = { bikeId, packId, secondPackId: null, setUpId: null, riderId };
    await saveTest(tx, testId, links, test, { firstRide: { id: rideId, zone: deskZone() } });
    const log = rides.flatMap(({ entries }) => entries);
    // The words themselves stay, whatever of them was read.
    const said = { kind: "note", note: `Said: ${notes.trim()}`.slice(0, 2000) } as const;
    const note = { id: uuidv7(), seq: log.length, at: null, body: said, supersedes: null };
    await appendEntries(tx, rideId, [...log, note]);
  });
}

export async function action({ request, context }: Route.ActionArgs) {
  const form = await request.formData();
  const notes = String(form.get("notes") ?? "").slice(0, MOST_SAID);
  const name = plainText(String(form.get("bike") ?? "")).trim();
  if (name.length > LONGEST_NAME)
    return data({ refused: `A bike's name has up to ${LONGEST_NAME} letters.` }, { status: 400 });
  const quick = readQuick(quickNotes(notes), deskDay(), () => uuidv7(), name);
  if (!quick.ok) return data({ refused: quick.problems[0]?.sentence ?? null }, { status: 400 });
  const db = context.get(dbContext);
  const testId = madeId(request);
  if (!(await findTest(db, testId))) await makeTest(db, testId, quick.value, { notes, isNamed: name !== "" });
  return redirect(href("/strip/:testId", { testId }));
}

/** A figure from a few words. */
export default function QuickPage({ loaderData: { day }, actionData }: Route.ComponentProps) {
  return (
    <Page
      title="Quick figure"
      line="From a pack and a ride in a few words to watt-hours per mile, with its plus-or-minus."
    >
      <div className="p-4 md:p-6">
        <QuickBox day={day} refused={actionData?.refused ?? null} />
      </div>
    </Page>
  );
}
