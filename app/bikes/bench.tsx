import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { data, redirect } from "react-router";
import { v7 as uuidv7 } from "uuid";
import { deskDay } from "#app/ui/clock.server";
import { dbContext } from "#app/context";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { formatInput, unitOf, type System } from "#core/base";
import type { Bench } from "#core/records";
import { saveBench } from "#db/bikes";
import { Cautions } from "#ui/cautions";
import { TextField, TickField } from "#ui/field";
import { Page } from "#ui/page";
import { SaveForm } from "#ui/saveForm";
import { useSystem } from "#ui/system";
import { benchAt } from "./benchData.server";
import { BENCH_FIELDS, benchForm } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/stale.server";
import type { Route } from "./+types/bench";

export async function loader({ params, context }: Route.LoaderArgs) {
  const found = await benchAt(context.get(dbContext), params);
  return { ...found, today: deskDay() };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const { bike, pack, bench } = await benchAt(db, params);
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: benchForm(systemOf(request)),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const id = bench?.id ?? uuidv7();
  const system = systemOf(request);
  const { saved, stale } = await saveOrStale(
    () => saveBench(db, id, pack.id, submission.value, seenVersion(form)),
    async () => benchTexts((await benchAt(db, params)).bench, "", system),
  );
  if (stale) return staleReply(submission.reply(), stale);
  return redirect(afterChange(`/bikes/${bike.id}/packs/${pack.id}/bench/${id}/sheet`, saved));
}

/** A bench test as its form's texts; a new one is of today. */
function benchTexts(bench: Bench | null, today: string, system: System) {
  const quantity = (value: number | undefined, name: "energy" | "temperature" | "volts") =>
    value === undefined ? "" : formatInput(value, name, unitOf(name, system));
  return {
    on: bench?.on ?? today,
    fromFull: bench ? "on" : "",
    startVolts: quantity(bench?.startVolts, "volts"),
    hours: bench ? `${bench.hours} h` : "",
    wh: quantity(bench?.wh, "energy"),
    sdWh: quantity(bench?.sdWh, "energy"),
    startTempC: quantity(bench?.startTempC, "temperature"),
    highestTempC: quantity(bench?.highestTempC, "temperature"),
    instrument: bench?.instrument ?? "",
    by: bench?.by ?? "",
    note: bench?.note ?? "",
  };
}

export default function BenchPage({
  loaderData: { bike, pack, bench, today },
  actionData,
}: Route.ComponentProps) {
  const system = useSystem();
  const schema = useMemo(() => benchForm(system), [system]);
  return (
    <Page
      title={`Bench test of ${pack.name}, ${bike.name}`}
      line="A slow discharge from full to cut-off, on a tester made for the pack. It sets the pack's measured capacity."
    >
      <div className="max-w-2xl p-4 md:p-6">
        <SaveForm
          schema={schema}
          names={BENCH_FIELDS}
          values={benchTexts(bench, today, system)}
          version={bench?.version}
          lastResult={actionData}
          save="Keep it, show the sheet"
          back={`/bikes/${bike.id}`}
        >
          {(fields) => (
            <>
              <section className="grid gap-4 sm:grid-cols-2">
                <TextField field={fields.on} label="Day" type="date" />
                <TickField
                  field={fields.fromFull}
                  label="It started from full, charger green"
                  className="self-end"
                />
                <TextField field={fields.startVolts} label="Rest volts at the start" />
                <TextField field={fields.hours} label="Took" hint="Such as 5.5 h." />
                <TextField field={fields.wh} label="Result" hint="Such as 583 Wh." />
                <TextField
                  field={fields.sdWh}
                  label="Doubt of it, 1 sd"
                  hint="The tester's own; at least 1.5 % is taken."
                />
                <TextField field={fields.startTempC} label="Pack temperature at the start" />
                <TextField field={fields.highestTempC} label="Highest seen" />
                <TextField field={fields.instrument} label="Tester" />
                <TextField field={fields.by} label="Done by" hint="A first name is enough." />
                <TextField field={fields.note} label="Remarks" className="sm:col-span-2" />
              </section>
              <Cautions of="pack" />
            </>
          )}
        </SaveForm>
      </div>
    </Page>
  );
}
