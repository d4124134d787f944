import { href, Form, redirect } from "react-router";
import { deskDay } from "#app/ui/clock.server";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { found, idOf } from "#app/ui/require.server";
import { GROUNDS } from "#core/fields";
import { sweepSchema } from "#core/records";
import { findBike, listBikes, listPacks, listRiders, listSetUps } from "#db/bikes";
import { saveSweep } from "#db/field";
import { Choose, Line, LiveFields, Ticks } from "#ui/forms/lines";
import { Cautions } from "#ui/cautions";
import { Page } from "#ui/page";
import { emptyGrid, speedsTyped } from "./sweepForm";
import { WhichBike } from "./whichBike";
import type { Route } from "./+types/sweepNew";

const GONE = "There is no such bike.";
/** A sweep holds no more. */
const MOST_ROWS = 400;

export async function loader({ request, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const bikes = await listBikes(db);
  const asked = new URL(request.url).searchParams.get("bike");
  const bike = bikes.find(({ id }) => id === asked) ?? bikes[0] ?? null;
  const [packs, setUps, riders] = bike
    ? await Promise.all([listPacks(db, bike.id), listSetUps(db, bike.id), listRiders(db)])
    : [[], [], []];
  return { bikes, bike, packs, setUps, riders, today: deskDay() };
}

export async function action({ request, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const form = await request.formData();
  const text = (name: string) => String(form.get(name) ?? "");
  const bike = found(await findBike(db, idOf(text("bike"), GONE)), GONE);
  const packs = await listPacks(db, bike.id);
  const pack = found(packs.find(({ id }) => id === text("pack")) ?? packs[0], "The bike has no pack.");
  const all = [...bike.levels, ...(bike.throttle ? ["throttle"] : [])];
  const levels = form
    .getAll("levels")
    .map(String)
    .filter((level) => all.includes(level));
  const grounds = GROUNDS.filter((ground) => form.getAll("grounds").includes(ground));
  const id = madeId(request);
  const sweep = sweepSchema.parse({
    title: text("title").trim() || `Sweep of ${bike.name}`,
    day: text("day") || deskDay(),
    open: emptyGrid(
      levels.length ? levels : all.slice(0, 1),
      grounds.length ? grounds : ["asphalt"],
      speedsTyped(text("speeds")),
    ).slice(0, MOST_ROWS),
  });
  const links = {
    bikeId: bike.id,
    packId: pack.id,
    setUpId: text("setUp") || null,
    riderId: text("rider") || null,
  };
  await saveSweep(db, id, links, sweep);
  return redirect(href("/compare/sweeps/:sweepId", { sweepId: id }));
}

const named = (all: readonly { readonly id: string; readonly name: string }[], none?: string) => [
  ...(none ? [{ value: "", label: none }] : []),
  ...all.map(({ id, name }) => ({ value: id, label: name })),
];
const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));

/** Lays out the grid of a sweep before the ride. */
export default function SweepNew({ loaderData }: Route.ComponentProps) {
  const { bikes, bike, packs, setUps, riders, today } = loaderData;
  if (!bike)
    return (
      <Page title="New sweep">
        <p className="p-6">Add a bike and its pack first.</p>
      </Page>
    );
  return (
    <Page
      title="New sweep"
      line="Choose what is ridden; the grid is then filled at each stop, or afterwards. Ride every square there and back."
    >
      <LiveFields values={{ title: `Sweep of ${bike.name}`, day: today }} problems={{}}>
        <div className="grid max-w-3xl gap-6 p-4 md:p-6">
          <WhichBike bikes={bikes} bikeId={bike.id} />
          <Form method="post" key={bike.id} className="grid gap-4 sm:grid-cols-2">
            <input type="hidden" name="bike" value={bike.id} />
            <Line name="title" label="Name" />
            <Line name="day" label="Day" type="date" />
            <Choose name="pack" label="Pack" options={named(packs)} />
            <Choose name="setUp" label="Set-up" options={named(setUps, "not noted")} />
            <Choose name="rider" label="Rider" options={named(riders, "not noted")} />
            <Ticks
              name="levels"
              label="Levels"
              className="sm:col-span-2"
              options={same([...bike.levels, ...(bike.throttle ? ["throttle"] : [])])}
              chosen={bike.throttle ? ["throttle"] : bike.levels}
            />
            <Ticks
              name="grounds"
              label="Grounds"
              className="sm:col-span-2"
              options={same(GROUNDS)}
              chosen={["asphalt"]}
            />
            <Line
              name="speeds"
              label="Speeds held, where each level is ridden at several"
              assumed="10, 15, 20 mph"
              className="sm:col-span-2"
            />
            <div className="sm:col-span-2">
              <button className="button button-main">Lay out the grid</button>
            </div>
          </Form>
          <Cautions of="riding" most={2} />
        </div>
      </LiveFields>
    </Page>
  );
}
