import { parseWithZod } from "@conform-to/zod/v4";
import { href, data, Link, redirect } from "react-router";
import { dbContext } from "#app/context";
import { found, idOf } from "#app/ui/require.server";
import { afterChange } from "#app/ui/safePath";
import { systemOf } from "#app/ui/systemCookie";
import { findBike, listPacks, listRiders, listSetUps } from "#db/bikes";
import { findTest, saveTest } from "#db/tests";
import { Page } from "#ui/page";
import { TestForm, testForm, testTexts } from "./testForm";
import { saveOrStale, seenVersion, staleReply } from "#app/ui/forms/stale.server";
import { linkProblems } from "./links.server";
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
  const form = await request.formData();
  const submission = parseWithZod(form, {
    schema: testForm(systemOf(request), Date.now()),
    disableAutoCoercion: true,
  });
  if (submission.status !== "success") return data(submission.reply(), { status: 400 });
  const { packId, secondPackId, setUpId, riderId, ...test } = submission.value;
  const links = { bikeId: line.bikeId, packId, secondPackId, setUpId, riderId };
  const gone = await linkProblems(db, links);
  if (gone) return data(submission.reply({ fieldErrors: gone }), { status: 400 });
  const { saved, stale } = await saveOrStale(
    () => saveTest(db, line.id, links, test, { seen: seenVersion(form) }),
    async () => {
      const now = found(await findTest(db, line.id), GONE);
      return testTexts(now.test, now, systemOf(request));
    },
  );
  return stale
    ? staleReply(submission.reply(), stale)
    : redirect(afterChange(href("/strip/:testId", { testId: line.id }), saved));
}

export default function Conditions({
  loaderData: { line, bike, packs, setUps, riders, nowMs },
  actionData,
}: Route.ComponentProps) {
  return (
    <Page
      title={`Conditions of ${line.test.title}`}
      line={`${bike.name}. A change reckons the test again.`}
      next={
        <Link to={href("/strip/:testId/totals", { testId: line.id })} className="button">
          Riding time, climb, heart rate
        </Link>
      }
    >
      <div className="max-w-3xl p-4 md:p-6">
        <TestForm
          bike={bike}
          packs={packs}
          setUps={setUps}
          riders={riders}
          test={line.test}
          links={line}
          version={line.version}
          nowMs={nowMs}
          lastResult={actionData}
          save="Save"
          back={href("/strip/:testId", { testId: line.id })}
        />
      </div>
    </Page>
  );
}
