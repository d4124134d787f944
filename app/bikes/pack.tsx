import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { data, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { findBike, listPacks, savePack } from "#db/bikes";
import { Cautions } from "#ui/cautions";
import { SelectField, TextField } from "#ui/field";
import { Page } from "#ui/page";
import { SaveForm } from "#ui/saveForm";
import { useSystem } from "#ui/system";
import { NEW_PACK, PACK_FIELDS, packForm, packTexts } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/stale.server";
import type { Route } from "./+types/pack";

const GONE = "There is no such pack.";

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const bike = found(await findBike(db, idOf(params.bikeId, GONE)), GONE);
  if (params.packId === "new") return { bike, pack: NEW_PACK, isNew: true };
  const id = idOf(params.packId, GONE);
  return {
    bike,
    pack: found(
      (await listPacks(db, bike.id, { archived: true })).find((pack) => pack.id === id),
      GONE,
    ),
    isNew: false,
  };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const bikeId = idOf(params.bikeId, GONE);
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: packForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const id = params.packId === "new" ? uuidv7() : idOf(params.packId, GONE);
  const db = context.get(dbContext);
  const system = systemOf(request);
  found(await findBike(db, bikeId), "There is no such bike.");
  const { saved, stale } = await saveOrStale(
    () => savePack(db, id, bikeId, submission.value, seenVersion(form)),
    async () =>
      packTexts(
        found(
          (await listPacks(db, bikeId, { archived: true })).find((pack) => pack.id === id),
          GONE,
        ),
        system,
      ),
  );
  return stale ? staleReply(submission.reply(), stale) : redirect(afterChange(`/bikes/${bikeId}`, saved));
}

export default function Pack({ loaderData: { bike, pack, isNew }, actionData }: Route.ComponentProps) {
  const system = useSystem();
  const schema = useMemo(() => packForm(system), [system]);
  const pencil = (name: string) => pack.pencil.includes(name);
  return (
    <Page
      title={isNew ? `A pack for ${bike.name}` : `${pack.name} of ${bike.name}`}
      line="As its label says; a measured capacity beats the label."
    >
      <div className="max-w-3xl p-4 md:p-6">
        <SaveForm
          schema={schema}
          names={PACK_FIELDS}
          values={packTexts(pack, system)}
          lastResult={actionData}
          save="Keep the pack"
          version={"version" in pack ? Number(pack.version) : undefined}
          back={`/bikes/${bike.id}`}
        >
          {(fields) => (
            <>
              <section className="grid gap-4 sm:grid-cols-2">
                <TextField field={fields.name} label="Name" pencil={pencil("name")} />
                <SelectField
                  field={fields.chemistry}
                  label="Chemistry"
                  pencil={pencil("chemistry")}
                  options={[
                    { value: "NMC", label: "NMC (most packs)" },
                    { value: "LFP", label: "LFP (iron phosphate)" },
                  ]}
                />
                <TextField
                  field={fields.labelWh}
                  label="Printed energy"
                  hint="Such as 612 Wh. Or give Ah and cells below."
                  autoFocus={isNew}
                />
                <TextField field={fields.ampHours} label="Printed charge" hint="Such as 17 Ah." />
                <TextField
                  field={fields.seriesCells}
                  label="Cells in series"
                  hint="36 V has 10, 48 V has 13, 52 V has 14. Volts say nothing without it."
                  inputMode="numeric"
                />
              </section>
              <section className="grid gap-4 sm:grid-cols-2">
                <h2 className="sm:col-span-2">Measured, at 25 C</h2>
                <TextField
                  field={fields.measuredWh}
                  label="Bench capacity"
                  hint="Empty when nobody measured it."
                />
                <TextField field={fields.measuredSdWh} label="Doubt of it, 1 sd" />
                <TextField field={fields.measuredOn} label="Measured on" type="date" />
                <TextField
                  field={fields.resistanceOhm}
                  label="Resistance, ohm"
                  hint="Such as 0.11. Empty: read off the ride, or assumed."
                  inputMode="decimal"
                />
                <TextField
                  field={fields.ocv}
                  label="Own rest-volts curve"
                  hint="Percent and volts of one cell: 0 3.0, 50 3.70, 100 4.18. Empty: the usual one of its chemistry."
                  className="sm:col-span-2"
                />
              </section>
              <section className="grid gap-4 sm:grid-cols-2">
                <h2 className="sm:col-span-2">Age and keeping</h2>
                <TextField field={fields.firstUsedOn} label="First used on" type="date" />
                <TextField
                  field={fields.cycles}
                  label="Full cycles so far"
                  hint="Two half charges make one."
                  inputMode="numeric"
                />
                <TextField field={fields.storage} label="Storage" hint="Where, how full, how warm." />
                <TextField field={fields.lastFullOn} label="Last full on" type="date" />
                <TextField field={fields.highestTempC} label="Highest temperature seen" />
                <TextField field={fields.massKg} label="Weight of the pack" />
                <TextField
                  field={fields.priceMinor}
                  label="Price by itself"
                  hint="Such as 749. Tells what a mile more costs on a larger pack."
                />
              </section>
              <Cautions of="pack" most={3} />
            </>
          )}
        </SaveForm>
      </div>
    </Page>
  );
}
