import { parseWithZod } from "@conform-to/zod/v4";
import { data, redirect } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { systemOf } from "#app/ui/systemCookie";
import { findBike, listPacks, listRiders, listSetUps } from "#db/bikes";
import { findTest, saveTest } from "#db/tests";
import { Page } from "#ui/page";
import { TestForm, testForm } from "./testForm";
import type { Route } from "./+types/conditions";

const GONE = "There is no such test.";

export async function loader({ params, context }: Route.LoaderArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const [bike, packs, setUps, riders] = await Promise.all([
    findBike(db, line.bikeId),
    listPacks(db, line.bikeId),
    listSetUps(db, line.bikeId),
    listRiders(db),
  ]);
  return { line, bike: found(bike, GONE), packs, setUps, riders, nowMs: Date.now() };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const db = context.get(dbContext);
  const line = found(await findTest(db, idOf(params.testId, GONE)), GONE);
  const submission = parseWithZod(await request.formData(), {
    schema: testForm(systemOf(request), Date.now()),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const { packId, secondPackId, setUpId, riderId, ...test } = submission.value;
  await saveTest(db, line.id, { bikeId: line.bikeId, packId, secondPackId, setUpId, riderId }, test);
  return redirect(`/strip/${line.id}`);
}

export default function Conditions({
  loaderData: { line, bike, packs, setUps, riders, nowMs },
  actionData,
}: Route.ComponentProps) {
  return (
    <Page title={`Conditions of ${line.test.title}`} line={`${bike.name}. A change reckons the test again.`}>
      <div className="max-w-3xl p-4 md:p-6">
        <TestForm
          bike={bike}
          packs={packs}
          setUps={setUps}
          riders={riders}
          test={line.test}
          links={line}
          nowMs={nowMs}
          lastResult={actionData}
          save="Keep"
          back={`/strip/${line.id}`}
        />
      </div>
    </Page>
  );
}
