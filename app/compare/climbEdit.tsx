import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { href, data, redirect } from "react-router";
import { deskDay } from "#app/ui/clock.server";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { afterChange } from "#app/ui/safePath";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { CLIMB_FIELDS, type ClimbRecord } from "#core/records";
import { findBike, listBikes, listPacks, listRiders, listSetUps } from "#db/bikes";
import { findClimb, listClimbs, saveClimb } from "#db/field";
import { Acts } from "#ui/acts";
import { Cautions } from "#ui/cautions";
import { RecordForm } from "#ui/forms/recordForm";
import { History } from "#ui/history";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { WhichBike } from "./whichBike";
import { climbForm, climbTexts } from "./climbForm";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import type { Route } from "./+types/climbEdit";

const GONE = "There is no such climb.";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const isNew = params.climbId === "new";
  const line = isNew ? null : found(await findClimb(db, idOf(params.climbId, GONE)), GONE);
  const [bikes, climbs] = await Promise.all([listBikes(db), listClimbs(db)]);
  const asked = new URL(request.url).searchParams.get("bike");
  const bike = bikes.find(({ id }) => id === (line?.bikeId ?? asked)) ?? bikes[0] ?? null;
  const [packs, setUps, riders] = bike
    ? await Promise.all([listPacks(db, bike.id), listSetUps(db, bike.id), listRiders(db)])
    : [[], [], []];
  // A new run most likely goes up the last hill again.
  const last = climbs[0]?.body;
  const before: Partial<ClimbRecord> = line?.body ?? {
    day: deskDay(),
    ...(last && { hill: last.hill, lengthM: last.lengthM, gainM: last.gainM, ground: last.ground }),
  };
  return { line, bikes, bike, packs, setUps, riders, before };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const form = await request.formData();
  const text = (name: string) => String(form.get(name) ?? "");
  const submission = parseWithZod(form, {
    schema: climbForm(systemOf(request)) as never,
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const bike = found(await findBike(db, idOf(text("bike"), GONE)), GONE);
  const packs = await listPacks(db, bike.id);
  const pack = found(packs.find(({ id }) => id === text("pack")) ?? packs[0], "The bike has no pack.");
  const id = params.climbId === "new" ? madeId(request) : idOf(params.climbId, GONE);
  const links = {
    bikeId: bike.id,
    packId: pack.id,
    setUpId: text("setUp") || null,
    riderId: text("rider") || null,
  };
  const system = systemOf(request);
  const { saved, stale } = await saveOrStale(
    () => saveClimb(db, id, links, submission.value as ClimbRecord, seenVersion(form)),
    async () => climbTexts(found(await findClimb(db, id), GONE).body, system),
  );
  return stale
    ? staleReply(submission.reply(), stale)
    : redirect(afterChange(href("/compare/climbs"), saved));
}

const same = (values: readonly string[]) => values.map((value) => ({ value, label: value }));
const named = (all: readonly { readonly id: string; readonly name: string }[]) =>
  all.map(({ id, name }) => ({ value: id, label: name }));

/** A choice that is no field of the climb itself: who rode what. */
function Linked({
  name,
  label,
  value,
  options,
}: {
  readonly name: string;
  readonly label: string;
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
}) {
  return (
    <label className="text-sm font-medium">
      {label}
      <select name={name} className="input mt-1" defaultValue={value}>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </label>
  );
}

/** One run up a hill. */
export default function ClimbEdit({ loaderData, actionData }: Route.ComponentProps) {
  const { line, bikes, bike, packs, setUps, riders, before } = loaderData;
  const system = useSystem();
  const schema = useMemo(() => climbForm(system), [system]);
  if (!bike)
    return (
      <Page title="New climb">
        <p className="p-6">Add a bike and its pack first.</p>
      </Page>
    );
  const levels = [...bike.levels, ...(bike.throttle ? ["throttle"] : [])];
  const none = [{ value: "", label: "not noted" }];
  return (
    <Page
      title={line ? line.body.hill : "New climb"}
      line="One run up one hill. The energy by a counter where there is one; else the percent at the foot and at the top."
      acts={
        line ? (
          <Acts
            kind="climb"
            id={line.id}
            name={line.body.hill}
            list={href("/compare/climbs")}
            archived={line.archived}
          />
        ) : null
      }
    >
      <div className="grid max-w-3xl gap-6 p-4 md:p-6">
        {line ? null : <WhichBike bikes={bikes} bikeId={bike.id} />}
        <RecordForm
          key={bike.id}
          of={CLIMB_FIELDS}
          schema={schema}
          values={climbTexts(before, system)}
          options={{ level: [...none, ...same(levels)] }}
          behind={{
            "How it was ridden": (
              <>
                <Linked name="pack" label="Pack" value={line?.packId ?? ""} options={named(packs)} />
                <Linked
                  name="setUp"
                  label="Set-up"
                  value={line?.setUpId ?? ""}
                  options={[...none, ...named(setUps)]}
                />
                <Linked
                  name="rider"
                  label="Rider"
                  value={line?.riderId ?? ""}
                  options={[...none, ...named(riders)]}
                />
              </>
            ),
          }}
          lastResult={actionData as never}
          save="Save the climb"
          version={line?.version}
          back={href("/compare/climbs")}
          hidden={{ bike: bike.id }}
        >
          <Cautions of="riding" most={2} />
        </RecordForm>
      </div>
      {line ? (
        <div className="px-4 pb-6 md:px-6">
          <History kind="climb" id={line.id} />
        </div>
      ) : null}
    </Page>
  );
}
