import { parseWithZod } from "@conform-to/zod/v4";
import { useMemo } from "react";
import { href, data, redirect } from "react-router";
import { deskDay } from "#app/ui/clock.server";
import { dbContext } from "#app/context";
import { madeId } from "#app/ui/network/once.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { BENCH_FIELDS } from "#core/records";
import { saveBench } from "#db/bikes";
import { Cautions } from "#ui/cautions";
import { RecordForm } from "#ui/forms/recordForm";
import { Page } from "#ui/page";
import { useSystem } from "#ui/system";
import { benchAt } from "./benchData.server";
import { benchForm, benchTexts } from "./forms";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import type { Route } from "./+types/bench";
import { Acts } from "#ui/acts";

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
  const id = bench?.id ?? madeId(request);
  const system = systemOf(request);
  const { saved, stale } = await saveOrStale(
    () => saveBench(db, id, pack.id, submission.value, seenVersion(form)),
    async () => benchTexts((await benchAt(db, params)).bench, "", system),
  );
  if (stale) return staleReply(submission.reply(), stale);
  return redirect(
    afterChange(
      href("/bikes/:bikeId/packs/:packId/bench/:benchId/sheet", {
        bikeId: bike.id,
        packId: pack.id,
        benchId: id,
      }),
      saved,
    ),
  );
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
      acts={
        bench ? (
          <Acts
            kind="bench"
            id={bench.id}
            name={`bench test of ${bench.on}`}
            list={href("/bikes/:bikeId", { bikeId: bike.id })}
          />
        ) : null
      }
    >
      <div className="max-w-2xl p-4 md:p-6">
        <RecordForm
          of={BENCH_FIELDS}
          schema={schema}
          values={benchTexts(bench, today, system)}
          version={bench?.version}
          lastResult={actionData}
          save="Save it, show the sheet"
          back={href("/bikes/:bikeId", { bikeId: bike.id })}
        >
          <Cautions of="pack" />
        </RecordForm>
      </div>
    </Page>
  );
}
