import { parseWithZod } from "@conform-to/zod/v4";
import { href, data, Link, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { deskDay, deskZone } from "#app/ui/clock.server";
import { idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { listBikes, listPacks, listRiders, listSetUps } from "#db/bikes";
import { findTest, saveTest, usualRider } from "#db/tests";
import { Empty, Page } from "#ui/page";
import { TestForm, testForm } from "./testForm";
import { linkProblems } from "./links.server";
import { clientId } from "./log.server";
import type { Route } from "./+types/new";

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const [bikes, packs] = await Promise.all([listBikes(db), listPacks(db)]);
  const bike = bikes.find(({ id }) => id === new URL(request.url).searchParams.get("bike"));
  const nowMs = Date.now();
  const choices = bikes.map(({ id, name, what }) => ({
    id,
    name,
    what,
    hasPack: packs.some(({ bikeId }) => bikeId === id),
  }));
  if (!bike) return { chosen: null, choices, nowMs, today: "", clock: "", newId: "" };
  const [setUps, riders, riderId] = await Promise.all([
    listSetUps(db, bike.id),
    listRiders(db),
    usualRider(db, bike.id),
  ]);
  return {
    chosen: { bike, packs: packs.filter(({ bikeId }) => bikeId === bike.id), setUps, riders, riderId },
    choices,
    nowMs,
    today: deskDay(nowMs),
    clock: deskZone(),
    newId: uuidv7(),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const bikeId = idOf(new URL(request.url).searchParams.get("bike") ?? undefined, "There is no such bike.");
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: testForm(systemOf(request), Date.now()),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const { packId, secondPackId, setUpId, riderId, zone = "+00:00", ...test } = submission.value;
  const db = context.get(dbContext);
  const links = { bikeId, packId, secondPackId, setUpId, riderId };
  const gone = await linkProblems(db, links);
  if (gone) return data(submission.reply({ fieldErrors: gone }), { status: 400 });
  // The page names the test: sent twice, it is made once.
  const id = clientId(form.get("newId"));
  if (!(await findTest(db, id))) await saveTest(db, id, links, test, { firstRide: { id: uuidv7(), zone } });
  const next = form.get("next");
  return redirect(
    next === "narration"
      ? href("/strip/:testId/narration", { testId: id })
      : next === "import"
        ? href("/strip/:testId/import", { testId: id })
        : href("/strip/:testId", { testId: id }),
  );
}

export default function NewTest({
  loaderData: { chosen, choices, nowMs, today, clock, newId },
  actionData,
}: Route.ComponentProps) {
  if (!chosen)
    return (
      <Page title="New test" line="Which bike was ridden?">
        <div className="p-4 md:p-6">
          {choices.length === 0 ? (
            <Empty
              step={
                <Link to={href("/bikes/new")} className="button button-main">
                  Add the first bike
                </Link>
              }
            >
              A test needs a bike and its pack.
            </Empty>
          ) : (
            <ul className="grid max-w-2xl gap-2">
              {choices.map(({ id, name, what, hasPack }) => (
                <li key={id}>
                  <Link
                    to={
                      hasPack
                        ? `${href("/strip/new")}?bike=${id}`
                        : href("/bikes/:bikeId/packs/:packId", { bikeId: id, packId: "new" })
                    }
                    className="sheet block p-3 no-underline hover:border-spruce"
                  >
                    <b>{name}</b>
                    <span className="block text-sm text-quiet">{hasPack ? what : "add its pack first"}</span>
                  </Link>
                </li>
              ))}
            </ul>
          )}
        </div>
      </Page>
    );
  const { bike, packs, setUps, riders, riderId } = chosen;
  return (
    <Page title={`New test of ${bike.name}`} line="One charge of one pack. The check-ins come next.">
      <div className="max-w-3xl p-4 md:p-6">
        <TestForm
          bike={bike}
          packs={packs}
          setUps={setUps}
          riders={riders}
          test={{
            title: "",
            school: "part charge",
            drive: "pedal",
            day: today,
            wind: "",
            course: "",
            firstLevel: bike.levels[0] ?? "",
            firstGround: "asphalt",
            pencil: [],
          }}
          links={{
            packId: packs[0]?.id ?? "",
            secondPackId: null,
            setUpId: setUps[0]?.id ?? null,
            riderId,
          }}
          nowMs={nowMs}
          clock={clock}
          lastResult={actionData}
          save="Save and add check-ins"
          ways={[
            ["import", "Save and import files"],
            ["narration", "Save and import what was said"],
          ]}
          newId={newId}
          back={href("/bikes/:bikeId", { bikeId: bike.id })}
        />
      </div>
    </Page>
  );
}
